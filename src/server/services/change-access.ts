import 'server-only';
import type { DocumentId, GrantId } from '@/core/base/ids';
import type { Happening } from '@/core/ledger/entry';
import type { ChangeEndsInput, ChangeEndsResult } from '@/contracts/dispatch';
import { reaches } from '@/core/policy/powers';
import { termsText } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import { setDocumentReinstated, setDocumentRevoked, findDocument } from '@/server/repositories/document-repository';
import { answerableFor, grantsByIds, setGrantEnd, setGrantsReinstated, setGrantsRevoked, toFacts, type GrantRecord } from '@/server/repositories/dispatch-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { record } from '@/server/services/record';

/** An entry about one grant. */
export function aboutGrant(action: Happening['action'], actor: StaffActor, now: number, grant: GrantRecord, details: Happening['details'] = {}): Happening {
  return { action, outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, grant: grant.id, document: grant.documentId, recipient: grant.recipientId, dispatch: grant.dispatchId, details };
}

/** @throws ServiceError `NOT_ALLOWED` where one of these is beyond this person's reach: then none is changed */
async function needReach(tx: Transaction, actor: StaffActor, grants: readonly GrantId[]): Promise<void> {
  if ((await answerableFor(tx, grants)).every((of) => reaches(actor, of))) return;
  throw new ServiceError('NOT_ALLOWED', 'Some of this was sent by somebody else and is not your document. Nothing was changed. Ask an administrator.');
}

/** Revokes grants. Those revoked already stay as they are and are not recorded again. */
export async function revokeGrants(deps: Deps, actor: StaffActor, { grants }: { readonly grants: readonly GrantId[] }): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needReach(tx, actor, grants);
    const changed = await setGrantsRevoked(tx, grants, actor.id, now);
    if (changed.length > 0) await record(deps, tx, ...changed.map((grant) => aboutGrant('grant.revoked', actor, now, grant)));
    return { changed: changed.length };
  });
}

/** Takes revocations back; the grants are what they were before. */
export async function reinstateGrants(deps: Deps, actor: StaffActor, { grants }: { readonly grants: readonly GrantId[] }): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needReach(tx, actor, grants);
    const changed = await setGrantsReinstated(tx, grants);
    if (changed.length > 0) await record(deps, tx, ...changed.map((grant) => aboutGrant('grant.reinstated', actor, now, grant)));
    return { changed: changed.length };
  });
}

/**
 * Moves the ends of grants, all of them or none.
 *
 * @returns for each the end it had, so that the change can be undone by the same means
 * @throws ServiceError `CONFLICT` where somebody changed one since it was shown, `INVALID`, `NOT_FOUND`
 */
export async function changeEnds(deps: Deps, actor: StaffActor, { changes }: ChangeEndsInput): Promise<ChangeEndsResult> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const ids = changes.map(({ grant }) => grant);
    await needReach(tx, actor, ids);
    const known = new Map((await grantsByIds(tx, ids)).map((grant) => [grant.id, grant]));
    const changed: ChangeEndsResult['changed'][number][] = [];
    const happenings: Happening[] = [];
    for (const { grant, revision, until } of changes) {
      const before = known.get(grant);
      if (before === undefined) throw new ServiceError('NOT_FOUND', 'There is no such grant.');
      if (until !== null && until <= (before.fromAt ?? before.givenAt)) throw new ServiceError('INVALID', 'The end lies before the start.');
      const after = await setGrantEnd(tx, grant, revision, until);
      if (after === null) throw new ServiceError('CONFLICT', 'Somebody else changed this in the meantime. Nothing was changed now; look at it again.');
      changed.push({ grant, revision: after.revision, before: before.untilAt });
      happenings.push(aboutGrant('grant.changed', actor, now, after, { before: termsText(toFacts(before).terms), terms: termsText(toFacts(after).terms) }));
    }
    await record(deps, tx, ...happenings);
    return { changed };
  });
}

async function needDocument(tx: Transaction, actor: StaffActor, id: DocumentId): Promise<void> {
  const found = await findDocument(tx, id);
  if (found === null) throw new ServiceError('NOT_FOUND', 'There is no such document.');
  if (!reaches(actor, { owner: found.document.ownerId })) throw new ServiceError('NOT_ALLOWED', 'This document is somebody else’s. Ask its owner or an administrator.');
}

/** Revokes a whole document: a state that beats every grant and leaves them as they were. */
export async function revokeDocument(deps: Deps, actor: StaffActor, { id }: { readonly id: DocumentId }): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needDocument(tx, actor, id);
    if (!(await setDocumentRevoked(tx, id, actor.id, now))) return { changed: 0 };
    await record(deps, tx, { action: 'document.revoked', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, document: id });
    return { changed: 1 };
  });
}

/** Takes a document's revocation back. */
export async function reinstateDocument(deps: Deps, actor: StaffActor, { id }: { readonly id: DocumentId }): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needDocument(tx, actor, id);
    if (!(await setDocumentReinstated(tx, id))) return { changed: 0 };
    await record(deps, tx, { action: 'document.reinstated', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, document: id });
    return { changed: 1 };
  });
}
