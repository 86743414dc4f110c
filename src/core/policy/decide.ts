import type { GrantId, RecipientId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { Ceiling } from '@/core/policy/ceiling';
import { byCharge, gives, type CompiledDocument, type CompiledGrant } from '@/core/policy/compile';
import type { Bounds } from '@/core/policy/condition-effects';
import type { Circumstances } from '@/core/policy/conditions';
import { RIGHTS, type Right, type Terms } from '@/core/policy/rights';

/** Why an open is refused: one code each; the words for it are the screen's. */
export type RefusalReason =
  | 'identity-not-proven'
  | 'not-addressed'
  | 'recipient-blocked'
  | 'document-revoked'
  | 'not-yet'
  | 'expired'
  | 'revoked'
  | 'key-destroyed'
  | 'prove-again'
  | 'passkey-needed'
  | 'device-not-accepted'
  | 'too-many-devices'
  | 'network-not-allowed'
  | 'place-not-allowed'
  | 'hours-not-allowed'
  | 'opens-used-up'
  | 'condition-unknown'
  | 'read-not-allowed';

/**
 * Of several reasons the one that the person can do most about is said: first what another place,
 * device or hour would change.
 */
const MOST_USEFUL_FIRST = [
  'prove-again',
  'passkey-needed',
  'device-not-accepted',
  'too-many-devices',
  'network-not-allowed',
  'place-not-allowed',
  'hours-not-allowed',
  'opens-used-up',
  'not-yet',
  'read-not-allowed',
  'condition-unknown',
  'expired',
  'revoked',
] as const satisfies readonly RefusalReason[];

const RANKS = Object.fromEntries(MOST_USEFUL_FIRST.map((reason, rank) => [reason, rank])) as Record<
  NotLive,
  number
>;

/** Why one right is withheld although the document may be read. */
export type Withheld =
  'not-given' | 'prints-used-up' | 'needs-unlimited-print' | 'needs-keep' | 'above-ceiling';

/** Who asks, for what, and how. */
export type Asking = {
  readonly identity: 'proven' | 'not-proven';
  readonly recipient: {
    readonly id: RecipientId;
    readonly blocked: boolean;
    readonly groups?: readonly string[];
    readonly domain?: string;
  } | null;
  /** The open link they came by, if it gives access. */
  readonly link?: string;
  /** The grant that an open which goes on is charged to: it stays so for as long as that grant is live. */
  readonly during?: GrantId;
  readonly at: Circumstances;
};

/** The rule behind a result, so that any result can be traced to who set it and when. */
type Source = {
  readonly level: 'recipient' | 'document' | 'grant' | Ceiling['level'];
  readonly grant: GrantId | null;
};

export type RightVerdict =
  | { readonly granted: true; readonly grant: GrantId; readonly printsLeft: number | null }
  | { readonly granted: false; readonly why: Withheld; readonly source: Source };

/** What the reader has to see to. */
type Obligations = Bounds;

export type Decision =
  | {
      readonly outcome: 'granted';
      /** The grant that this open is charged to. */
      readonly charged: GrantId;
      /** When the last of the live grants ends; `null`: no end. */
      readonly until: Moment | null;
      /** Opens that are left of the grant this one is charged to; `null`: as many as wanted. */
      readonly opensLeft: number | null;
      readonly rights: Readonly<Record<Right, RightVerdict>>;
      readonly obligations: Obligations;
    }
  | {
      readonly outcome: 'refused';
      readonly reason: RefusalReason;
      readonly source: Source | null;
      /** When access ended or will begin, where the reason is about that and it is known. */
      readonly at: Moment | null;
    };

function refuse(
  reason: RefusalReason,
  source: Source | null = null,
  at: Moment | null = null,
): Decision {
  return { outcome: 'refused', reason, source, at };
}

/** Why the window of a grant is not open now, conditions and ceilings aside; `null` where it is. */
export function windowState(
  { revoked, terms }: { readonly revoked: boolean; readonly terms: Pick<Terms, 'from' | 'until'> },
  now: Moment,
): 'revoked' | 'not-yet' | 'expired' | null {
  if (revoked) return 'revoked';
  if (terms.until !== null && now >= terms.until) return 'expired';
  return terms.from !== null && now < terms.from ? 'not-yet' : null;
}

export type NotLive = (typeof MOST_USEFUL_FIRST)[number];

/** Why this grant does not count for this request, or `null` where it is live. */
export function notLive(grant: CompiledGrant, at: Circumstances): NotLive | null {
  if (grant.revoked) return 'revoked';
  if (at.now >= grant.until) return 'expired';
  if (at.now < grant.from) return 'not-yet';
  if (!grant.rights.has('read')) return 'read-not-allowed';
  for (const { test, used } of grant.tests) {
    const refusal = test(at, used);
    if (refusal !== null) return refusal;
  }
  return null;
}

/** The moment that a reason is about. */
function momentOf(
  reason: NotLive | 'not-addressed',
  { facts, from, until }: CompiledGrant,
): Moment | null {
  if (reason === 'revoked') return facts.revokedAt ?? null;
  if (reason === 'expired') return until;
  return reason === 'not-yet' ? from : null;
}

const NONE: readonly CompiledGrant[] = [];

/** Two lists in the order of charging as one in that order. */
function joined(
  a: readonly CompiledGrant[],
  b: readonly CompiledGrant[] | undefined,
): readonly CompiledGrant[] {
  if (b === undefined) return a;
  if (a.length === 0) return b;
  const merged: CompiledGrant[] = [];
  let at = 0;
  for (const grant of b) {
    for (let next = a[at]; next !== undefined && byCharge(next, grant) < 0; next = a[++at])
      merged.push(next);
    merged.push(grant);
  }
  for (; at < a.length; at++) {
    const rest = a[at];
    if (rest !== undefined) merged.push(rest);
  }
  return merged;
}

/** Every grant that reaches this person, by whatever route: their own, their groups', their domain's, or the link's. */
export function grantsReaching(
  { byAddressee }: CompiledDocument,
  { recipient, link }: Pick<Asking, 'recipient' | 'link'>,
): readonly CompiledGrant[] {
  let found = recipient === null ? NONE : (byAddressee.person.get(recipient.id) ?? NONE);
  if (recipient !== null) {
    const { groups = [], domain } = recipient;
    for (let index = 0; index < groups.length; index++) {
      const group = groups[index] ?? '';
      if (groups.indexOf(group) === index) found = joined(found, byAddressee.group.get(group));
    }
    if (domain !== undefined) found = joined(found, byAddressee.domain.get(domain));
  }
  if (link !== undefined) found = joined(found, byAddressee.link.get(link));
  return found;
}

/** Why a right that this grant lists has no effect. */
const WITHOUT_EFFECT: Partial<Record<Right, Withheld>> = {
  keep: 'needs-unlimited-print',
  revise: 'needs-keep',
  print: 'prints-used-up',
};

/** The verdict on one right, from the live grants in the order of charging. */
function judge(right: Right, live: readonly CompiledGrant[], charged: CompiledGrant): RightVerdict {
  let first: CompiledGrant | null = null;
  for (const grant of live) {
    if (!grant.rights.has(right)) continue;
    first ??= grant;
    if (gives(grant, right))
      return {
        granted: true,
        grant: grant.facts.id,
        printsLeft: right === 'print' ? grant.printsLeft : null,
      };
  }
  if (first !== null)
    return {
      granted: false,
      why: WITHOUT_EFFECT[right] ?? 'not-given',
      source: { level: 'grant', grant: first.facts.id },
    };
  for (const grant of live) {
    const ceiling = grant.effective.taken.get(right);
    if (ceiling !== undefined)
      return {
        granted: false,
        why: 'above-ceiling',
        source: { level: ceiling.level, grant: grant.facts.id },
      };
  }
  return { granted: false, why: 'not-given', source: { level: 'grant', grant: charged.facts.id } };
}

/** What one live grant comes to does not change until something else does. */
const alone = new WeakMap<CompiledGrant, Decision>();

function rightsOf(
  live: readonly CompiledGrant[],
  charged: CompiledGrant,
): Record<Right, RightVerdict> {
  const verdicts: Partial<Record<Right, RightVerdict>> = {};
  for (const right of RIGHTS) verdicts[right] = judge(right, live, charged);
  return verdicts as Record<Right, RightVerdict>;
}

function grantTo(live: readonly CompiledGrant[], charged: CompiledGrant): Decision {
  const known = live.length === 1 ? alone.get(charged) : undefined;
  if (known !== undefined) return known;
  let end = charged.until;
  for (const { until } of live) if (until > end) end = until;
  const rights = rightsOf(live, charged);
  const passing = rights['pass-on'];
  const from = passing.granted ? live.find(({ facts }) => facts.id === passing.grant) : undefined;
  const { offline, captureDeterrent } = charged.bounds;
  const decision: Decision = {
    outcome: 'granted',
    charged: charged.facts.id,
    until: Number.isFinite(end) ? end : null,
    opensLeft: charged.opensLeft,
    rights,
    obligations: { offline, captureDeterrent, passOn: from?.bounds.passOn ?? null },
  };
  if (live.length === 1) alone.set(charged, decision);
  return decision;
}

/**
 * Whether this person may open this document, and what they may do with it.
 *
 * A refusal is a value. What refuses beats what grants: a block, a revoked or destroyed document
 * beat every grant. The rights of all live grants add up; nothing is granted that no grant gives
 * or that a ceiling takes.
 */
export function decide(document: CompiledDocument, asking: Asking): Decision {
  const { at } = asking;
  if (asking.identity !== 'proven') return refuse('identity-not-proven');
  const grants = grantsReaching(document, asking);
  if (grants.length === 0) return refuse('not-addressed');
  const shut = shutOut(document, asking);
  if (shut !== null) return shut;

  const live: CompiledGrant[] = [];
  // Where none is live, the most useful thing to say, of the grant whose id comes first.
  let rank: number = MOST_USEFUL_FIRST.length;
  let said: CompiledGrant | null = null;
  for (const grant of grants) {
    const reason = notLive(grant, at);
    if (reason === null) {
      live.push(grant);
      continue;
    }
    const own = RANKS[reason];
    if (own > rank || (own === rank && said !== null && said.facts.id < grant.facts.id)) continue;
    rank = own;
    said = grant;
  }
  const charged = chargedOf(live, asking.during);
  if (charged !== undefined) return grantTo(live, charged);
  return refuseBy(MOST_USEFUL_FIRST[rank] ?? 'not-addressed', said);
}

/** What beats every grant: a block, a destroyed key, a revoked document; `null` where nothing does. */
function shutOut(document: CompiledDocument, { recipient }: Asking): Decision | null {
  if (recipient?.blocked === true)
    return refuse('recipient-blocked', { level: 'recipient', grant: null });
  const rule = { level: 'document', grant: null } as const;
  if (document.keyDestroyed) return refuse('key-destroyed', rule);
  if (document.revoked) return refuse('document-revoked', rule, document.revokedAt ?? null);
  return null;
}

/** The live grant whose counts an open is charged to: the one it began with while that is live. */
function chargedOf(
  live: readonly CompiledGrant[],
  during: GrantId | undefined,
): CompiledGrant | undefined {
  if (during === undefined) return live[0];
  return live.find(({ facts }) => facts.id === during) ?? live[0];
}

function refuseBy(reason: NotLive | 'not-addressed', said: CompiledGrant | null): Decision {
  if (said === null) return refuse(reason, { level: 'grant', grant: null });
  return refuse(reason, { level: 'grant', grant: said.facts.id }, momentOf(reason, said));
}
