import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { dropKeys, findDocument } from '@/server/repositories/document-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { record } from '@/server/services/record';

/**
 * Deletes the keys of every version of a document: it can never be opened through Embargo again.
 * The reference has to be typed, since this cannot be undone.
 *
 * @throws ServiceError `NOT_FOUND`, `INVALID` where what was typed is not the reference, `CONFLICT` where it was done before
 */
export async function destroyKey(deps: Deps, actor: StaffActor, { id, typed }: { readonly id: DocumentId; readonly typed: string }): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const found = await findDocument(tx, id);
    if (found === null) throw new ServiceError('NOT_FOUND', 'There is no such document.');
    if (typed.trim() !== found.document.reference) throw new ServiceError('INVALID', `Type ${found.document.reference} exactly, to say that you mean this document.`);
    if (found.version.wrappedKey === null) throw new ServiceError('CONFLICT', 'Its key was destroyed before.');
    await dropKeys(tx, id);
    await record(deps, tx, { action: 'key.destroyed', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), document: id, version: found.version.id });
  });
  deps.keyring.clear();
  // Not in the log of the database either: what was overwritten there goes into the file and the log is emptied.
  await deps.db.checkpoint();
  return {};
}
