import type { GrantId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { DAY } from '@/core/base/time';
import type { Ceiling, Limits } from '@/core/policy/ceiling';
import type { Change } from '@/core/policy/changes';
import { compileAlone, gives, type CompiledGrant, type GrantFacts } from '@/core/policy/compile';
import { conditionTest } from '@/core/policy/condition-effects';
import type { Circumstances, Conditions } from '@/core/policy/conditions';
import { notLive, type NotLive } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';

/** The rule behind a result: on which level it stands, and who set it when. */
export type Rule = {
  readonly level: 'identity' | 'recipient' | 'document' | 'grant' | Ceiling['level'];
  /** The marking, folder or document whose ceiling it is; the grant's id; or empty. */
  readonly subject: string;
  readonly setBy: string | null;
  readonly setAt: Moment | null;
};

/** What stands in the way, and the one change that takes it out of the way; `null`: nothing does. */
export type Cause = { readonly rule: Rule; readonly change: Change | null };

/** A grant, then the ones it was passed on from, up to the first; `isWhole`: it leads to one that nobody passed on. */
export type Chain = { readonly links: readonly GrantFacts[]; readonly isWhole: boolean };

export function chainOf(grants: ReadonlyMap<GrantId, GrantFacts>, id: GrantId): Chain {
  const links: GrantFacts[] = [];
  const seen = new Set<GrantId>();
  for (let at: GrantId | null | undefined = id; at != null;) {
    const facts = grants.get(at);
    if (facts === undefined || seen.has(at)) return { links, isWhole: false };
    seen.add(at);
    links.push(facts);
    at = facts.parent;
  }
  return { links, isWhole: true };
}

export function ruleOfGrant({
  id,
  givenBy,
  givenAt,
}: Pick<GrantFacts, 'id' | 'givenBy' | 'givenAt'>): Rule {
  return { level: 'grant', subject: id, setBy: givenBy, setAt: givenAt };
}

function byGrant(link: GrantFacts, change: Change | null): Cause {
  return { rule: ruleOfGrant(link), change };
}

function byCeiling(ceiling: Ceiling, limit: keyof Limits): Cause {
  const { level, subject, setBy, setAt } = ceiling;
  return {
    rule: { level, subject, setBy, setAt },
    change: { kind: 'raise-ceiling', ceiling, limit },
  };
}

function byCondition(link: GrantFacts, condition: keyof Conditions | 'unknown'): Cause {
  return byGrant(link, { kind: 'change-condition', grant: link.id, condition });
}

/** A limit in numbers, with what set it. */
type Bound = { readonly at: number; readonly cause: () => Cause };

/** The tightest of several limits; of equal ones the first. */
function tightest(bounds: readonly Bound[]): Cause | null {
  const [first, ...rest] = bounds;
  if (first === undefined) return null;
  return rest.reduce((least, each) => (each.at < least.at ? each : least), first).cause();
}

function bound(at: number | null | undefined, cause: () => Cause): Bound[] {
  return at == null ? [] : [{ at, cause }];
}

function endsOf(link: GrantFacts, ceilings: readonly Ceiling[]): Bound[] {
  const { until, conditions } = link.terms;
  const first = link.used.firstOpenedAt;
  const spanEnd = conditions?.within == null || first === null ? null : first + conditions.within;
  return [
    ...bound(until, () => byGrant(link, { kind: 'extend-grant', grant: link.id })),
    ...bound(spanEnd, () => byCondition(link, 'within')),
    ...ceilings.flatMap((ceiling) =>
      bound(ceiling.limits.days === null ? null : link.givenAt + ceiling.limits.days * DAY, () =>
        byCeiling(ceiling, 'days'),
      ),
    ),
  ];
}

/**
 * What sets the end of a grant: its own end, the time since its first open, a ceiling, or any of
 * these on a grant above.
 */
export function causeOfEnd({ links }: Chain, ceilings: readonly Ceiling[]): Cause | null {
  return tightest(links.flatMap((link) => endsOf(link, ceilings)));
}

function causeOfStart({ links }: Chain): Cause | null {
  return tightest(
    links.flatMap((link) =>
      bound(link.terms.from === null ? null : -link.terms.from, () =>
        byGrant(link, { kind: 'begin-sooner', grant: link.id }),
      ),
    ),
  );
}

/** Why a link itself does not have a right. */
function causeOfNoRight(
  link: GrantFacts,
  right: Right,
  ceilings: readonly Ceiling[],
): Cause | null {
  if (!link.terms.rights.includes(right))
    return byGrant(link, { kind: 'give-right', grant: link.id, right });
  const taker = ceilings.find(
    ({ limits }) => limits.rights !== null && !limits.rights.includes(right),
  );
  return taker === undefined ? null : byCeiling(taker, 'rights');
}

function firstOf<T>(
  all: readonly T[],
  causeOf: (each: T, index: number) => Cause | null,
): Cause | null {
  for (const [index, each] of all.entries()) {
    const cause = causeOf(each, index);
    if (cause !== null) return cause;
  }
  return null;
}

/** Why a chain does not give a right: a link lacks it, or one above may not pass on. */
function causeOfRightMissing(
  { links, isWhole }: Chain,
  right: Right,
  ceilings: readonly Ceiling[],
): Cause | null {
  const own = links[0];
  if (!isWhole && own !== undefined) return byGrant(own, null);
  return firstOf(
    links,
    (link, step) =>
      causeOfNoRight(link, right, ceilings) ??
      (step === 0 ? null : causeOfNoRight(link, 'pass-on', ceilings)),
  );
}

function causeOfNoPrintsLeft({ links }: Chain, ceilings: readonly Ceiling[]): Cause | null {
  return firstOf(links, (link) =>
    tightest(
      [
        ...bound(link.terms.prints, () =>
          byGrant(link, { kind: 'give-more-prints', grant: link.id }),
        ),
        ...ceilings.flatMap((ceiling) =>
          bound(ceiling.limits.prints, () => byCeiling(ceiling, 'prints')),
        ),
      ].filter(({ at }) => at <= link.used.prints),
    ),
  );
}

function causeOfLimitedPrints({ links }: Chain, ceilings: readonly Ceiling[]): Cause | null {
  const limiting = ceilings.find(({ limits }) => limits.prints !== null);
  return (
    firstOf(links, (link) =>
      link.terms.prints === null ? null : byGrant(link, { kind: 'unlimit-prints', grant: link.id }),
    ) ?? (limiting === undefined ? null : byCeiling(limiting, 'prints'))
  );
}

/** Each step up has one step less to go when it comes down to this grant. */
function causeOfPassingToNobody({ links }: Chain): Cause | null {
  return firstOf(links, (link, step) =>
    (link.terms.conditions?.passOn?.steps ?? 0) - step < 1 ? byCondition(link, 'passOn') : null,
  );
}

/** Why a grant does not give a right an effect; `null`: it does, or no cause is known. */
export function causeOfNoEffect(
  compiled: CompiledGrant,
  chain: Chain,
  right: Right,
  ceilings: readonly Ceiling[],
): Cause | null {
  if (gives(compiled, right)) return null;
  const missing = causeOfRightMissing(chain, right, ceilings);
  if (missing !== null) return missing;
  // Who may not have the file cannot change it.
  if (right === 'revise') return causeOfNoEffect(compiled, chain, 'keep', ceilings);
  if (right === 'keep')
    return (
      causeOfRightMissing(chain, 'copy', ceilings) ??
      causeOfRightMissing(chain, 'print', ceilings) ??
      causeOfLimitedPrints(chain, ceilings)
    );
  return right === 'print' ? causeOfNoPrintsLeft(chain, ceilings) : causeOfPassingToNobody(chain);
}

function causeOfNetwork(
  link: GrantFacts,
  ceilings: readonly Ceiling[],
  at: Circumstances,
): Cause | null {
  const isOutside = (networks: readonly string[] | null | undefined): boolean =>
    networks != null && conditionTest({ networks })?.(at, link.used) != null;
  if (isOutside(link.terms.conditions?.networks)) return byCondition(link, 'networks');
  const ceiling = ceilings.find(({ limits }) => isOutside(limits.networks));
  return ceiling === undefined ? null : byCeiling(ceiling, 'networks');
}

function causeOfPlace(
  link: GrantFacts,
  ceilings: readonly Ceiling[],
  at: Circumstances,
): Cause | null {
  const isOutside = (countries: readonly string[] | null | undefined): boolean =>
    countries != null && conditionTest({ countries })?.(at, link.used) != null;
  if (isOutside(link.terms.conditions?.countries)) return byCondition(link, 'countries');
  const ceiling = ceilings.find(({ limits }) => isOutside(limits.countries));
  return ceiling === undefined ? null : byCeiling(ceiling, 'countries');
}

function causeOfOpens(link: GrantFacts, ceilings: readonly Ceiling[]): Cause | null {
  return tightest([
    ...bound(link.terms.conditions?.opens, () => byCondition(link, 'opens')),
    ...ceilings.flatMap((ceiling) =>
      bound(ceiling.limits.opens, () => byCeiling(ceiling, 'opens')),
    ),
  ]);
}

/** A passkey is used by the person, whoever asked for it. */
function causeOfPasskey(link: GrantFacts, ceilings: readonly Ceiling[]): Cause {
  const change: Change = { kind: 'use-passkey' };
  const asking = ceilings.find(({ limits }) => limits.passkey === true);
  return link.terms.conditions?.passkey === true || asking === undefined
    ? byGrant(link, change)
    : { ...byCeiling(asking, 'passkey'), change };
}

/** What stands behind a condition of this very link that is not met. */
function causeOfCondition(
  link: GrantFacts,
  reason: NotLive,
  ceilings: readonly Ceiling[],
  at: Circumstances,
): Cause | null {
  if (reason === 'prove-again') return byGrant(link, { kind: 'prove-address' });
  if (reason === 'passkey-needed') return causeOfPasskey(link, ceilings);
  if (reason === 'device-not-accepted') return byCondition(link, 'rememberedDevice');
  if (reason === 'too-many-devices') return byCondition(link, 'devices');
  if (reason === 'hours-not-allowed') return byCondition(link, 'hours');
  if (reason === 'condition-unknown') return byCondition(link, 'unknown');
  if (reason === 'network-not-allowed') return causeOfNetwork(link, ceilings, at);
  return reason === 'place-not-allowed'
    ? causeOfPlace(link, ceilings, at)
    : causeOfOpens(link, ceilings);
}

/** Why a grant does not count for a request, down to the rule that decides; `null`: it counts. */
export function causeOfNotLive(
  compiled: CompiledGrant,
  chain: Chain,
  ceilings: readonly Ceiling[],
  at: Circumstances,
): Cause | null {
  const reason = notLive(compiled, at);
  if (reason === null) return null;
  if (reason === 'revoked')
    return firstOf(chain.links, (link) =>
      link.revoked ? byGrant(link, { kind: 'reinstate-grant', grant: link.id }) : null,
    );
  if (reason === 'expired') return causeOfEnd(chain, ceilings);
  if (reason === 'not-yet') return causeOfStart(chain);
  if (reason === 'read-not-allowed') return causeOfRightMissing(chain, 'read', ceilings);
  return firstOf(chain.links, (link) => {
    const { tests } = compileAlone(link, ceilings);
    const isIt = tests.some(({ test, used }) => test(at, used) === reason);
    return isIt ? causeOfCondition(link, reason, ceilings, at) : null;
  });
}
