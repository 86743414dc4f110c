import type { DocumentId, GrantId, RecipientId, StaffId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { RIGHTS, type Right, type Terms } from '@/core/policy/rights';

/** Why an open is refused: one code each; the words for it are the screen's. */
export const REFUSAL_REASONS = ['identity-not-proven', 'not-addressed', 'recipient-blocked', 'document-revoked', 'not-yet', 'expired', 'revoked', 'key-destroyed'] as const;
export type RefusalReason = (typeof REFUSAL_REASONS)[number];

/** Why one right is withheld although the document may be read. */
export type Withheld = 'not-given' | 'prints-used-up' | 'needs-unlimited-print';

export type GrantFacts = {
  readonly id: GrantId;
  readonly terms: Terms;
  readonly revoked: boolean;
  readonly printsMade: number;
  readonly givenBy: StaffId;
  readonly givenAt: Moment;
};

/** Everything a decision rests on besides the time. */
export type Facts = {
  readonly identity: 'proven' | 'not-proven';
  readonly recipient: { readonly id: RecipientId; readonly blocked: boolean } | null;
  readonly document: { readonly id: DocumentId; readonly revoked: boolean; readonly keyDestroyed: boolean };
  /** Every grant of this recipient on this document, in any order. */
  readonly grants: readonly GrantFacts[];
};

/** The rule behind a result, so that any result can be traced to who set it and when. */
export type Source = { readonly level: 'recipient' | 'document' | 'grant'; readonly grant: GrantId | null };

export type RightVerdict =
  | { readonly granted: true; readonly grant: GrantId; readonly printsLeft: number | null }
  | { readonly granted: false; readonly why: Withheld; readonly source: Source };

export type Decision =
  | {
      readonly outcome: 'granted';
      /** The grant that this open is charged to. */
      readonly charged: GrantId;
      /** When the last of the live grants ends; `null`: no end. */
      readonly until: Moment | null;
      readonly rights: Readonly<Record<Right, RightVerdict>>;
    }
  | { readonly outcome: 'refused'; readonly reason: RefusalReason; readonly source: Source | null };

function refuse(reason: RefusalReason, source: Source | null = null): Decision {
  return { outcome: 'refused', reason, source };
}

/** Why this grant does not count now, or `null` where it is live. The window is [from, until). */
export function notLive(grant: GrantFacts, now: Moment): 'revoked' | 'not-yet' | 'expired' | null {
  if (grant.revoked) return 'revoked';
  if (grant.terms.until !== null && now >= grant.terms.until) return 'expired';
  if (grant.terms.from !== null && now < grant.terms.from) return 'not-yet';
  return null;
}

function endOf(grant: GrantFacts): number {
  return grant.terms.until ?? Number.POSITIVE_INFINITY;
}

/** Most rights first, then latest end, then oldest; the id settles the rest, so that order never matters. */
function byCharge(a: GrantFacts, b: GrantFacts): number {
  const rights = b.terms.rights.length - a.terms.rights.length;
  if (rights !== 0) return rights;
  if (endOf(a) !== endOf(b)) return endOf(a) > endOf(b) ? -1 : 1;
  return a.givenAt - b.givenAt || (a.id < b.id ? -1 : 1);
}

function printsLeft(grant: GrantFacts): number | null {
  return grant.terms.prints === null ? null : Math.max(0, grant.terms.prints - grant.printsMade);
}

function givesKeep({ rights, prints }: Terms): boolean {
  return rights.includes('copy') && rights.includes('print') && prints === null;
}

/** The verdict on one right, from the live grants in the order of charging. */
function judge(right: Right, live: readonly GrantFacts[], charged: GrantFacts): RightVerdict {
  const giving = live.filter((grant) => grant.terms.rights.includes(right) && grant.terms.rights.includes('read'));
  const [first] = giving;
  if (first === undefined) return { granted: false, why: 'not-given', source: { level: 'grant', grant: charged.id } };
  if (right === 'keep') {
    const keeping = giving.find((grant) => givesKeep(grant.terms));
    if (keeping === undefined) return { granted: false, why: 'needs-unlimited-print', source: { level: 'grant', grant: first.id } };
    return { granted: true, grant: keeping.id, printsLeft: null };
  }
  if (right !== 'print') return { granted: true, grant: first.id, printsLeft: null };
  const usable = giving.find((grant) => printsLeft(grant) !== 0);
  if (usable === undefined) return { granted: false, why: 'prints-used-up', source: { level: 'grant', grant: first.id } };
  return { granted: true, grant: usable.id, printsLeft: printsLeft(usable) };
}

/** The most useful thing to say where no grant is live: one that will begin beats one that ended, beats one revoked. */
function refuseAll(grants: readonly GrantFacts[], now: Moment): Decision {
  for (const reason of ['not-yet', 'expired', 'revoked'] as const) {
    const ids = grants.filter((grant) => notLive(grant, now) === reason).map((grant) => grant.id);
    const id = ids.sort().at(0);
    if (id !== undefined) return refuse(reason, { level: 'grant', grant: id });
  }
  return refuse('not-addressed');
}

/**
 * Whether this person may open this document now, and what they may do with it.
 *
 * A refusal is a value. What refuses beats what grants: a block, a revoked or destroyed document
 * beat every grant. The rights of all live grants add up; nothing is granted that no grant gives.
 */
export function decide(facts: Facts, now: Moment): Decision {
  const { recipient, document, grants } = facts;
  if (facts.identity !== 'proven') return refuse('identity-not-proven');
  if (recipient === null || grants.length === 0) return refuse('not-addressed');
  if (recipient.blocked) return refuse('recipient-blocked', { level: 'recipient', grant: null });
  if (document.keyDestroyed) return refuse('key-destroyed', { level: 'document', grant: null });
  if (document.revoked) return refuse('document-revoked', { level: 'document', grant: null });

  const live = grants.filter((grant) => notLive(grant, now) === null && grant.terms.rights.includes('read')).sort(byCharge);
  const [charged] = live;
  if (charged === undefined) return refuseAll(grants, now);
  const end = Math.max(...live.map(endOf));
  const rights = Object.fromEntries(RIGHTS.map((right) => [right, judge(right, live, charged)])) as Record<Right, RightVerdict>;
  return { outcome: 'granted', charged: charged.id, until: Number.isFinite(end) ? end : null, rights };
}
