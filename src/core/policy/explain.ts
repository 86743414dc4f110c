import type { GrantId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { causeOfEnd, chainOf, ruleOfGrant, type Cause, type Rule } from '@/core/policy/causes';
import type { Ceiling } from '@/core/policy/ceiling';
import type { Case, Change } from '@/core/policy/changes';
import {
  allGrants,
  compileAlone,
  type Addressee,
  type CompiledDocument,
  type CompiledGrant,
} from '@/core/policy/compile';
import type { Conditions } from '@/core/policy/conditions';
import {
  decide,
  grantsReaching,
  notLive,
  type Asking,
  type Decision,
  type NotLive,
  type RightVerdict,
} from '@/core/policy/decide';
import {
  causeAboveGrants,
  causeFor,
  changesThatGive,
  changesThatTake,
  type Grants,
} from '@/core/policy/remedies';
import { RIGHTS, type Right } from '@/core/policy/rights';

/** The rule behind a result, and what would turn it into its opposite: all of it together. Empty: nothing would. */
export type Reason = Rule & { readonly changes: readonly Change[] };

/** One way in that a person has, live or not. */
export type Way = {
  readonly grant: GrantId;
  readonly addressee: Addressee;
  readonly parent: GrantId | null;
  readonly standing: 'live' | NotLive;
  readonly rights: readonly Right[];
  /** Rights that the grant gives and a ceiling takes. */
  readonly taken: readonly { readonly right: Right; readonly ceiling: Ceiling }[];
  readonly from: Moment | null;
  readonly until: Moment | null;
  /** Its own conditions, and those of each grant above it. */
  readonly conditions: readonly Conditions[];
  /** What sets the end; `null`: it has none. */
  readonly endedBy: Cause | null;
  readonly givenBy: string;
  readonly givenAt: Moment;
};

export type Explanation = {
  readonly decision: Decision;
  /** Why the document opens, or does not. */
  readonly why: Reason;
  readonly rights: readonly {
    readonly right: Right;
    readonly verdict: RightVerdict | null;
    readonly reason: Reason;
  }[];
  readonly ways: readonly Way[];
};

function wayOf(
  grant: CompiledGrant,
  standing: Way['standing'],
  grants: Grants,
  ceilings: readonly Ceiling[],
): Way {
  const { facts, effective, from, until } = grant;
  const chain = chainOf(grants, facts.id);
  return {
    grant: facts.id,
    addressee: facts.addressee,
    parent: facts.parent ?? null,
    standing,
    rights: RIGHTS.filter((right) => grant.rights.has(right)),
    taken: [...effective.taken].map(([right, ceiling]) => ({ right, ceiling })),
    from: Number.isFinite(from) ? from : null,
    until: Number.isFinite(until) ? until : null,
    conditions: chain.links.flatMap(
      (link) => compileAlone(link, ceilings).effective.terms.conditions ?? [],
    ),
    endedBy: causeOfEnd(chain, ceilings),
    givenBy: facts.givenBy,
    givenAt: facts.givenAt,
  };
}

const NOTHING_GIVES: Cause = {
  rule: { level: 'recipient', subject: '', setBy: null, setAt: null },
  change: { kind: 'give-access' },
};

function whyRefused(
  at: Case,
  grants: Grants,
  ids: readonly GrantId[],
  said: GrantId | null,
): Reason {
  const cause =
    (said === null ? causeAboveGrants(at) : causeFor(at, grants, said, 'open')) ?? NOTHING_GIVES;
  return { ...cause.rule, changes: changesThatGive(at, grants, ids, 'open') };
}

function whyRight(
  at: Case,
  grants: Grants,
  live: readonly CompiledGrant[],
  right: Right,
  verdict: RightVerdict,
): Reason {
  if (verdict.granted)
    return { ...ruleOf(grants, verdict.grant), changes: changesThatTake(live, grants, right) };
  const said = verdict.source.grant;
  const cause = said === null ? null : causeFor(at, grants, said, right);
  const ids = live.map(({ facts }) => facts.id);
  const inOrder = said === null ? ids : [said, ...ids.filter((id) => id !== said)];
  return {
    ...(cause?.rule ?? ruleOf(grants, said)),
    changes: changesThatGive(at, grants, inOrder, right),
  };
}

function ruleOf(grants: Grants, id: GrantId | null): Rule {
  const facts = id === null ? undefined : grants.get(id);
  return facts === undefined ? NOTHING_GIVES.rule : ruleOfGrant(facts);
}

/**
 * A decision with the rule behind it and behind each right, what would turn each into its opposite,
 * and every way in that the person has, live ones first. What is named as a change was tried: made
 * together, it does what is said.
 */
export function explain(document: CompiledDocument, asking: Asking): Explanation {
  const { byAddressee: _, ...rest } = document;
  const decision = decide(document, asking);
  const grants: Grants = new Map(allGrants(document).map(({ facts }) => [facts.id, facts]));
  const at: Case = { policy: { ...rest, grants: [...grants.values()] }, asking };
  const reached = grantsReaching(document, asking);
  const standings = reached.map((grant) => notLive(grant, asking.at));
  const ways = reached
    .map((grant, index) => wayOf(grant, standings[index] ?? 'live', grants, document.ceilings))
    .sort((a, b) => Number(b.standing === 'live') - Number(a.standing === 'live'));
  if (decision.outcome === 'refused') {
    const said = decision.source?.grant ?? null;
    const ids = reached.map(({ facts }) => facts.id);
    const why = whyRefused(
      at,
      grants,
      said === null ? ids : [said, ...ids.filter((id) => id !== said)],
      said,
    );
    return {
      decision,
      why,
      rights: RIGHTS.map((right) => ({ right, verdict: null, reason: why })),
      ways,
    };
  }
  const live = reached.filter((_grant, index) => standings[index] === null);
  return {
    decision,
    ways,
    why: { ...ruleOf(grants, decision.charged), changes: changesThatTake(live, grants, 'open') },
    rights: RIGHTS.map((right) => ({
      right,
      verdict: decision.rights[right],
      reason: whyRight(at, grants, live, right, decision.rights[right]),
    })),
  };
}
