import 'server-only';
import type { GrantId, StaffId } from '@/core/base/ids';
import { MINUTE } from '@/core/base/time';
import type { Details } from '@/core/ledger/details';
import type { LedgerEvent } from '@/core/ledger/entry';
import { holds, reaches } from '@/core/policy/permissions';
import { termsText } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import {
  answerableFor,
  countRevokedBy,
  grantsByIds,
  termsOf,
  type GrantRecord,
} from '@/server/repositories/access/grant-reader';
import { setGrantsReinstated, setGrantsRevoked } from '@/server/repositories/access/grant-writer';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import { liveBeneath, revokedAlong } from '@/server/repositories/access/wider-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needWithinLimits } from '@/server/services/policy/sender-limits';
import { needProof } from '@/server/services/staff/prove-staff';
import { NO_REASON, needBecause, type Because } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';

type GrantIds = Pick<GrantRecord, 'id' | 'documentId' | 'recipientId' | 'dispatchId'>;

type Held = GrantIds & Parameters<typeof termsOf>[0];

/** What every entry about a grant says of it. */
export function aboutGrant(actor: StaffActor, now: number, grant: GrantIds, why: Because) {
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
export async function needProofForMany(
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
export async function needOwnRevocation(
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
