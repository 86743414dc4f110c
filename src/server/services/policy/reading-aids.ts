import 'server-only';
import { newId, type RecipientId, type StaffId } from '@/core/base/ids';
import type { ReadingAidsInput } from '@/contracts/access';
import type { Decision } from '@/core/policy/decide';
import { reaches } from '@/core/policy/permissions';
import type { Reading, Transaction } from '@/server/db/database';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { aidsFor, deleteAids, insertAids } from '@/server/repositories/reading/aids-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { because, needBecause } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';
import { onlyOurs } from '@/server/services/base/trusted-rows';

/**
 * Whether somebody is sent the text of a document's pages although they may not copy it: its owner
 * switched reading aids on for them. What the organisation forbids to copy is sent to nobody.
 */
export async function readsWithAids(
  deps: Pick<Deps, 'integrity'>,
  db: Reading | Transaction,
  { rights }: Pick<Decision & { outcome: 'granted' }, 'rights'>,
  { owner, recipient }: { readonly owner: StaffId; readonly recipient: RecipientId },
): Promise<boolean> {
  if (!rights.read.granted || rights.copy.granted || rights.copy.why !== 'not-given') return false;
  const rows = (await aidsFor(db, [recipient])).filter(({ ownerId }) => ownerId === owner);
  return (await onlyOurs(deps, db, 'reading_aids', rows)).length > 0;
}

/**
 * Switches reading aids on or off for a person, on every document of one owner.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` for those who do not answer for the document
 */
export async function setReadingAids(
  deps: Deps,
  actor: StaffActor,
  { id, recipient, on, reason }: ReadingAidsInput,
): Promise<Record<string, never>> {
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  const { ownerId, deputyId } = found.document;
  if (!reaches(actor, { owner: ownerId, deputy: deputyId }))
    throw new ServiceError('reading-aids-of-others');
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const isOn = (await aidsFor(tx, [recipient])).some((row) => row.ownerId === ownerId);
    if (isOn === on) return;
    const why = on ? await needBecause(tx, reason) : because(reason);
    if (on)
      await insertAids(tx, {
        id: newId('aids', deps.random),
        ownerId,
        recipientId: recipient,
        since: now,
      });
    else await deleteAids(tx, ownerId, recipient);
    await record(deps, tx, {
      action: 'aids.switched',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      recipient,
      details: { owner: ownerId, on },
      ...why,
    });
  });
  return {};
}
