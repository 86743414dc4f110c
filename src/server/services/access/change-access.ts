import 'server-only';
import type { DocumentId, GrantId, StaffId, TermsId } from '@/core/base/ids';
import { MINUTE } from '@/core/base/time';
import type { Details } from '@/core/ledger/details';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Changeable, ChangeGrantsInput, ChangeGrantsResult } from '@/contracts/dispatch';
import { holds, reaches } from '@/core/policy/permissions';
import { brokenDependencies, termsText, type Terms } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import {
  findDocument,
  findDocuments,
  setDocumentReinstated,
  setDocumentRevoked,
} from '@/server/repositories/documents/document-repository';
import {
  answerableFor,
  countLive,
  countRevokedBy,
  grantsByIds,
  termsOf,
  type GrantRecord,
} from '@/server/repositories/access/grant-reader';
import {
  setGrantsReinstated,
  setGrantTerms,
  setGrantsRevoked,
  setTermsAsAbove,
} from '@/server/repositories/access/grant-writer';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import { liveBeneath, revokedAlong } from '@/server/repositories/access/wider-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needWithinLimits } from '@/server/services/policy/sender-limits';
import { needProof } from '@/server/services/staff/prove-staff';
import { NO_REASON, because, needBecause, type Because } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';

type GrantIds = Pick<GrantRecord, 'id' | 'documentId' | 'recipientId' | 'dispatchId'>;
type Held = GrantIds & Parameters<typeof termsOf>[0];

function aboutGrant(actor: StaffActor, now: number, grant: GrantIds, why: Because) {
  return {
    outcome: 'done' as const,
    actor: { kind: 'staff' as const, id: actor.id },
    occurredAt: now,
    grant: grant.id,
    document: grant.documentId,
    recipient: grant.recipientId,
    dispatch: grant.dispatchId,
    ...why,
  };
}

/** The entry about a grant that was revoked: what was taken away, from whom. */
export function aboutRevoked(
  actor: StaffActor,
  now: number,
  grant: Held,
  because: Pick<Details['grant.revoked'], 'because' | 'scope'> = {},
  why: Because = NO_REASON,
): LedgerEvent {
  return {
    action: 'grant.revoked',
    ...aboutGrant(actor, now, grant, why),
    details: { terms: termsText(termsOf(grant)), ...because },
  };
}

/** The entry about a grant that came back: what it is again. */
export function aboutReinstated(
  actor: StaffActor,
  now: number,
  grant: Held,
  because: Pick<Details['grant.reinstated'], 'because'> = {},
  why: Because = NO_REASON,
): LedgerEvent {
  return {
    action: 'grant.reinstated',
    ...aboutGrant(actor, now, grant, why),
    details: { terms: termsText(termsOf(grant)), ...because },
  };
}

/** @throws ServiceError `NOT_ALLOWED` where one of these is beyond this person's reach: then none is changed */
export async function needReach(
  tx: Reading | Transaction,
  actor: StaffActor,
  grants: readonly GrantId[],
): Promise<void> {
  if ((await answerableFor(tx, grants)).every((of) => reaches(actor, of))) return;
  throw new ServiceError('grants-of-others');
}

/** More grants than one would revoke by a slip of the hand, at once or within a while. */
const MANY = 25;
const WHILE = 10 * MINUTE;

/** Many small revocations reach as far as a large one. @throws ServiceError `PROVE_AGAIN` */
async function needProofForMany(
  tx: Transaction,
  actor: StaffActor,
  grants: number,
  now: number,
): Promise<void> {
  if (grants + (await countRevokedBy(tx, actor.id, now - WHILE)) > MANY) needProof(actor);
}

/** Revokes grants, and what stands beneath them. Those revoked already stay as they are and are not recorded again. */
export async function revokeGrants(
  deps: Deps,
  actor: StaffActor,
  { grants, reason }: { readonly grants: readonly GrantId[]; readonly reason?: string | undefined },
): Promise<{ readonly changed: number }> {
  return deps.db.write(async (tx) =>
    revokeGrantsIn(deps, tx, actor, grants, deps.clock.now(), await needBecause(tx, reason)),
  );
}

/** The same inside a change that somebody else makes. */
export async function revokeGrantsIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  grants: readonly GrantId[],
  now: number,
  why: Because = NO_REASON,
): Promise<{ readonly changed: number }> {
  await needProofForMany(tx, actor, grants.length, now);
  await needReach(tx, actor, grants);
  const changed = await setGrantsRevoked(
    tx,
    [...grants, ...(await liveBeneath(tx, grants)).map(({ id }) => id)],
    actor.id,
    now,
  );
  if (changed.length > 0)
    await record(deps, tx, ...changed.map((grant) => aboutRevoked(actor, now, grant, {}, why)));
  return { changed: changed.length };
}

/**
 * What somebody may take back: their own revocations and those of others on the staff, but not what
 * an administrator revoked, and no more than they may give.
 *
 * @throws ServiceError `NOT_ALLOWED`
 */
async function needReinstatable(
  tx: Transaction,
  actor: StaffActor,
  grants: readonly GrantRecord[],
): Promise<void> {
  await needOwnRevocation(
    tx,
    actor,
    grants.map(({ revokedBy }) => revokedBy),
  );
  const [documents, people] = [
    await findDocuments(
      tx,
      grants.map(({ documentId }) => documentId),
    ),
    await recipientsByIds(
      tx,
      grants.map(({ recipientId }) => recipientId),
    ),
  ];
  for (const grant of grants) {
    await needWithinLimits(tx, actor, {
      addresses: people.filter(({ id }) => id === grant.recipientId).map(({ address }) => address),
      documents: documents.filter(({ id }) => id === grant.documentId),
      terms: [termsOf(grant)],
      givenAt: grant.givenAt,
    });
  }
}

/** @throws ServiceError `NOT_ALLOWED` where an administrator revoked one of these, and this is none */
async function needOwnRevocation(
  tx: Transaction,
  actor: StaffActor,
  revokedBy: readonly (StaffId | null)[],
): Promise<void> {
  if (holds(actor.role, 'settings')) return;
  for (const by of new Set(revokedBy)) {
    const who = by === null || by === actor.id ? null : await findStaff(tx, by);
    if (who !== null && holds(who.role, 'settings'))
      throw new ServiceError('revoked-by-administrator', { name: who.name });
  }
}

/** Takes revocations back; the grants are what they were before. @throws ServiceError `NOT_ALLOWED` */
export async function reinstateGrants(
  deps: Deps,
  actor: StaffActor,
  { grants, reason }: { readonly grants: readonly GrantId[]; readonly reason?: string | undefined },
): Promise<{ readonly changed: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needReach(tx, actor, grants);
    const why = await needBecause(tx, reason);
    const ids = [...grants, ...(await revokedAlong(tx, grants))];
    await needReinstatable(
      tx,
      actor,
      (await grantsByIds(tx, ids)).filter(({ revokedAt }) => revokedAt !== null),
    );
    const changed = await setGrantsReinstated(tx, ids);
    if (changed.length > 0)
      await record(
        deps,
        tx,
        ...changed.map((grant) => aboutReinstated(actor, now, grant, {}, why)),
      );
    return { changed: changed.length };
  });
}

/** Whether somebody gets more by a change, or for longer. */
function widens({ rights, untilAt, conditions }: GrantRecord, terms: Changeable): boolean {
  const passesOn =
    terms.conditions?.passOn != null &&
    JSON.stringify(terms.conditions.passOn) !== JSON.stringify(conditions?.passOn ?? null);
  return (
    passesOn ||
    terms.rights.some((right) => !rights.includes(right)) ||
    (untilAt !== null && (terms.until === null || terms.until > untilAt))
  );
}

/** Whether somebody gets less by a change, for a shorter time, or under other conditions. */
function narrows(before: GrantRecord, after: GrantRecord): boolean {
  const isSooner =
    after.untilAt !== null && (before.untilAt === null || after.untilAt < before.untilAt);
  const isFewer = after.prints !== null && (before.prints === null || after.prints < before.prints);
  return (
    isSooner ||
    isFewer ||
    before.rights.some((right) => !after.rights.includes(right)) ||
    JSON.stringify(before.conditions) !== JSON.stringify(after.conditions)
  );
}

/**
 * Gives a grant other terms, inside a change that is recorded with it.
 *
 * @throws ServiceError `CONFLICT` where somebody changed it since `revision` was seen, `INVALID`,
 * `NOT_ALLOWED` beyond one's limits
 */
export async function changeGrant(
  tx: Transaction,
  actor: StaffActor,
  before: GrantRecord,
  revision: number,
  terms: Changeable,
): Promise<GrantRecord> {
  const prints = terms.rights.includes('print') ? terms.prints : null;
  if (terms.until !== null && terms.until <= (before.fromAt ?? before.givenAt))
    throw new ServiceError('end-before-start');
  const [broken] = brokenDependencies({
    rights: terms.rights,
    from: before.fromAt,
    until: terms.until,
    prints,
  });
  if (broken !== undefined) throw new ServiceError('right-needs', broken);
  if (widens(before, terms))
    await needWithinLimits(tx, actor, {
      addresses: [],
      documents: [],
      terms: [terms],
      givenAt: before.givenAt,
    });
  const after = await setGrantTerms(tx, before.id, revision, { ...terms, prints });
  if (after === null) throw new ServiceError('changed-meanwhile');
  return after;
}

/** Gives whoever has a grant beneath this one, and none that was changed by itself, the same terms. */
async function changeFollowers(
  tx: Transaction,
  actor: StaffActor,
  now: number,
  above: GrantRecord,
  why: Because,
): Promise<readonly LedgerEvent[]> {
  const followers = await liveBeneath(tx, [above.id], 'following');
  if (followers.length > 0)
    await setTermsAsAbove(
      tx,
      followers.map(({ id }) => id),
      above,
    );
  const { rights, untilAt, prints, conditions } = above;
  return followers.map((before) =>
    aboutChange(
      actor,
      now,
      before,
      termsOf({ ...before, rights, untilAt, prints, conditions }),
      why,
    ),
  );
}

/** The entry about a changed grant: what it was, what it is. */
export function aboutChange(
  actor: StaffActor,
  now: number,
  before: GrantRecord,
  after: Terms,
  why: Because = NO_REASON,
  kept?: TermsId,
): LedgerEvent {
  return {
    action: 'grant.changed',
    ...aboutGrant(actor, now, before, why),
    details: {
      before: termsText(termsOf(before)),
      terms: termsText(after),
      ...(kept === undefined ? {} : { kept }),
    },
  };
}

/**
 * Changes ends, rights and counts of grants, all of them or none.
 *
 * @returns for each what it was, so that the change can be undone by the same means
 * @throws ServiceError `CONFLICT` where somebody changed one since it was shown, `INVALID`, `NOT_FOUND`
 */
export function changeGrants(
  deps: Deps,
  actor: StaffActor,
  input: ChangeGrantsInput,
): Promise<ChangeGrantsResult> {
  return deps.db.write((tx) =>
    changeGrantsIn(deps, tx, actor, input, deps.clock.now(), { reason: input.reason ?? '' }),
  );
}

/** The same inside a change that somebody else makes. */
export async function changeGrantsIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { changes }: Pick<ChangeGrantsInput, 'changes'>,
  now: number,
  asked: { readonly reason: string } | null = null,
): Promise<ChangeGrantsResult> {
  const ids = changes.map(({ grant }) => grant);
  await needReach(tx, actor, ids);
  const known = new Map((await grantsByIds(tx, ids)).map((grant) => [grant.id, grant]));
  const changed: ChangeGrantsResult['changed'][number][] = [];
  const events: LedgerEvent[] = [];
  for (const { grant, revision, until, rights, prints, conditions } of changes) {
    const before = known.get(grant);
    if (before === undefined) throw new ServiceError('no-grant');
    const was: Changeable = {
      until: before.untilAt,
      rights: before.rights,
      prints: before.prints,
      conditions: before.conditions,
    };
    const after = await changeGrant(tx, actor, before, revision, {
      until: until === undefined ? was.until : until,
      rights: rights ?? was.rights,
      prints: prints === undefined ? was.prints : prints,
      conditions: conditions === undefined ? was.conditions : conditions,
    });
    const why =
      asked !== null && narrows(before, after)
        ? await needBecause(tx, asked.reason)
        : because(asked?.reason);
    changed.push({ grant, revision: after.revision, before: was });
    events.push(
      aboutChange(actor, now, before, termsOf(after), why),
      ...(await changeFollowers(tx, actor, now, after, why)),
    );
  }
  await record(deps, tx, ...events);
  return { changed };
}

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
