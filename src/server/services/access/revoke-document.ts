import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { reaches } from '@/core/policy/permissions';
import type { Transaction } from '@/server/db/database';
import {
  findDocument,
  setDocumentReinstated,
  setDocumentRevoked,
} from '@/server/repositories/documents/document-repository';
import { countLive } from '@/server/repositories/access/grant-reader';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needBecause } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';
import { needProofForMany, needOwnRevocation } from '@/server/services/access/revoke-grants';

/** @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function needDocument(
  tx: Transaction,
  actor: StaffActor,
  id: DocumentId,
): Promise<NonNullable<Awaited<ReturnType<typeof findDocument>>>> {
  const found = await findDocument(tx, id);
  if (found === null) throw new ServiceError('no-document');
  if (!reaches(actor, { owner: found.document.ownerId, deputy: found.document.deputyId }))
    throw new ServiceError('document-of-others');
  return found;
}

type ReasonedDocument = { readonly id: DocumentId; readonly reason?: string | undefined };

/** Revokes a whole document: a state that beats every grant and leaves them as they were. */
export async function revokeDocument(
  deps: Deps,
  actor: StaffActor,
  { id, reason }: ReasonedDocument,
): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needDocument(tx, actor, id);
    const why = await needBecause(tx, reason);
    await needProofForMany(tx, actor, await countLive(tx, id), now);
    if (!(await setDocumentRevoked(tx, id, actor.id, now))) return { changed: 0 };
    await record(deps, tx, {
      action: 'document.revoked',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      ...why,
    });
    return { changed: 1 };
  });
}

/** Takes a document's revocation back. */
export async function reinstateDocument(
  deps: Deps,
  actor: StaffActor,
  { id, reason }: ReasonedDocument,
): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const { document } = await needDocument(tx, actor, id);
    await needOwnRevocation(tx, actor, [document.revokedBy]);
    const why = await needBecause(tx, reason);
    if (!(await setDocumentReinstated(tx, id))) return { changed: 0 };
    await record(deps, tx, {
      action: 'document.reinstated',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      ...why,
    });
    return { changed: 1 };
  });
}
