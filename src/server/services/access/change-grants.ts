import 'server-only';
import type { TermsId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Changeable, ChangeGrantsInput, ChangeGrantsResult } from '@/contracts/dispatch';
import { brokenDependencies, termsText, type Terms } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import { grantsByIds, termsOf, type GrantRecord } from '@/server/repositories/access/grant-reader';
import { setGrantTerms, setTermsAsAbove } from '@/server/repositories/access/grant-writer';
import { liveBeneath } from '@/server/repositories/access/wider-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needWithinLimits } from '@/server/services/policy/sender-limits';
import { NO_REASON, because, needBecause, type Because } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';
import { aboutGrant, needReach } from '@/server/services/access/revoke-grants';

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

/** Gives anyone who has a grant beneath this one, and none that was changed by itself, the same terms. */
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
