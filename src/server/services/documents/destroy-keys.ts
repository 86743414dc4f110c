import 'server-only';
import { newId, type ConsentId, type DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import type { Destroyed, DestroyKeysInput } from '@/contracts/keys';
import { destroyWords } from '@/core/policy/destroy-words';
import type { Transaction } from '@/server/db/database';
import { insertConsent } from '@/server/repositories/policy/consent-repository';
import {
  dropKeys,
  findDocument,
  findDocuments,
} from '@/server/repositories/documents/document-repository';
import { destroyedAlone } from '@/server/repositories/ledger/last-done';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { noteEndings } from '@/server/services/ledger/note-endings';
import { NO_REASON, needBecause, type Because } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';

/** Deletes the keys of these documents. @returns how many had one */
export async function destroyIn(
  deps: Pick<Deps, 'recorder' | 'clock'>,
  tx: Transaction,
  actor: StaffActor,
  ids: readonly DocumentId[],
  details: { readonly consent?: ConsentId },
  why: Because = NO_REASON,
): Promise<number> {
  let destroyed = 0;
  for (const id of ids) {
    const found = await findDocument(tx, id);
    if (found === null) throw new ServiceError('a-document-gone');
    if (found.version.wrappedKey === null) continue;
    await dropKeys(tx, id);
    await record(deps, tx, {
      action: 'key.destroyed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      document: id,
      version: found.version.id,
      details,
      ...why,
    });
    destroyed++;
  }
  return destroyed;
}

/** Leaves no trace of a destroyed key: in memory, in the log of the database, in a backup that is brought back. */
export async function afterDestruction(deps: Deps): Promise<void> {
  deps.keyring.clear();
  deps.renderer.forget();
  deps.clearLeftovers();
  // What was overwritten goes into the file and the log is emptied.
  await deps.db.checkpoint();
  await noteEndings(deps);
}

/**
 * Deletes the keys of every version of a document: it can never be opened through Embargo again.
 * The reference has to be typed, since this cannot be undone.
 *
 * @throws ServiceError `NOT_FOUND`, `INVALID` where what was typed is not the reference, `CONFLICT`
 * where it was done before
 */
export async function destroyKey(
  deps: Deps,
  actor: StaffActor,
  {
    id,
    typed,
    reason,
  }: { readonly id: DocumentId; readonly typed: string; readonly reason?: string | undefined },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const found = await findDocument(tx, id);
    if (found === null) throw new ServiceError('no-document');
    if (typed.trim() !== found.document.reference)
      throw new ServiceError('reference-not-typed', { reference: found.document.reference });
    if (
      (await findOrganisation(tx))?.twoPeople === true &&
      (await destroyedAlone(tx, actor.id, deps.clock.now() - DAY)) > 0
    )
      throw new ServiceError('destroy-one-by-one');
    if ((await destroyIn(deps, tx, actor, [id], {}, await needBecause(tx, reason))) === 0)
      throw new ServiceError('key-destroyed-before');
  });
  await afterDestruction(deps);
  return {};
}

/**
 * Deletes the keys of several documents, or, where the organisation wants two people for that, asks
 * a second administrator.
 *
 * @throws ServiceError `INVALID` where what was typed does not say how many, `NOT_FOUND`
 */
export async function destroyKeys(
  deps: Deps,
  actor: StaffActor,
  { documents, typed, reason }: DestroyKeysInput,
): Promise<Destroyed> {
  if (typed.trim().toLowerCase() !== destroyWords(documents.length))
    throw new ServiceError('words-not-typed', { words: destroyWords(documents.length) });
  const several =
    documents.length + (await destroyedAlone(deps.db.read, actor.id, deps.clock.now() - DAY)) > 1;
  const two = (await findOrganisation(deps.db.read))?.twoPeople === true && several;
  if (two) {
    await deps.db.write(async (tx) => {
      if ((await findDocuments(tx, documents)).length !== new Set(documents).size)
        throw new ServiceError('a-document-gone');
      const id = newId('consent', deps.random);
      const now = deps.clock.now();
      await insertConsent(tx, {
        id,
        kind: 'destroy-keys',
        documents,
        reason,
        askedBy: actor.id,
        askedAt: now,
      });
      await record(deps, tx, {
        action: 'destruction.asked',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        details: { consent: id, documents: [...documents] },
        ...(reason === '' ? {} : { personal: { text: reason } }),
      });
    });
    return { destroyed: 0, waits: true };
  }
  const destroyed = await deps.db.write(async (tx) =>
    destroyIn(deps, tx, actor, documents, {}, await needBecause(tx, reason)),
  );
  await afterDestruction(deps);
  return { destroyed, waits: false };
}
