import type { GrantId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import {
  compileDocument,
  type CompiledDocument,
  type DocumentPolicy,
  type GrantFacts,
} from '@/core/policy/compile';
import {
  ANYWHERE,
  type Circumstances,
  type ConditionName,
  type Conditions,
} from '@/core/policy/conditions';
import { decide, grantsReaching, notLive, type Asking, type Decision } from '@/core/policy/decide';
import { underCeilings } from '@/core/policy/ceiling';
import { chainOf } from '@/core/policy/causes';
import { networkEdges } from '@/core/policy/networks';
import { RIGHTS, type Right } from '@/core/policy/rights';

/** What a change does to what one person can do with one document. Ends are in ms; `null`: no end. */
export type Impact = {
  readonly lost: readonly Right[];
  readonly gained: readonly Right[];
  readonly until: { readonly before: Moment | null; readonly after: Moment | null } | null;
  /** Whether their access ends the moment the change is made. */
  readonly ends: boolean;
  /** Whether it begins again the moment the change is made. */
  readonly revives: boolean;
  /** Whether how often, from where or on what they can open it changes. */
  readonly other: boolean;
};

export type Who = Pick<Asking, 'recipient' | 'link'>;
/** A document as it is and as a change would make it. */
export type BeforeAndAfter = { readonly before: DocumentPolicy; readonly after: DocumentPolicy };

/** A code that no country has (ISO 3166-1: user-assigned), for all that are not listed. */
const ELSEWHERE = 'ZZ';
/** Hours that never come. */
const NEVER = { days: [], from: 0, to: 0 };

type Granted = Extract<Decision, { readonly outcome: 'granted' }>;
/** With the grants as they stand, hours and all. */
type Compiled = {
  readonly document: CompiledDocument;
  readonly grants: ReadonlyMap<GrantId, GrantFacts>;
};

/**
 * The document as it is within, or outside of, whatever hours were agreed: a change at one of them
 * touches people all day.
 */
function atHours(policy: DocumentPolicy, within: boolean): Compiled {
  const grants = policy.grants.map((grant): GrantFacts => {
    const { conditions, ...terms } = grant.terms;
    return conditions?.hours == null
      ? grant
      : {
          ...grant,
          terms: {
            ...terms,
            conditions: {
              ...conditions,
              hours: within && conditions.hours.days.length > 0 ? null : NEVER,
            },
          },
        };
  });
  return {
    document: compileDocument({ ...policy, grants }),
    grants: new Map(policy.grants.map((grant) => [grant.id, grant])),
  };
}

function conditionsOf({ before, after }: BeforeAndAfter): readonly Conditions[] {
  return [...before.grants, ...after.grants].flatMap(({ terms }) => terms.conditions ?? []);
}

/** The moments at which somebody's access begins or ends, and now. */
function momentsOf(sides: readonly CompiledDocument[], who: Who, now: Moment): Moment[] {
  const edges = sides.flatMap((side) =>
    grantsReaching(side, who).flatMap(({ from, until }) => [from, until]),
  );
  return [now, ...new Set(edges.filter((edge) => edge > now && Number.isFinite(edge)))].sort(
    (a, b) => a - b,
  );
}

/** The places that lists of places tell apart, and anywhere. */
function placesOf(sides: BeforeAndAfter): Pick<Circumstances, 'country' | 'network'>[] {
  const limits = [...sides.before.ceilings, ...sides.after.ceilings].map(
    (ceiling) => ceiling.limits,
  );
  const lists = [...conditionsOf(sides), ...limits];
  const listed = lists.flatMap(({ networks }) => networks ?? []);
  const networks = listed.length === 0 ? [] : networkEdges([...new Set(listed)]);
  const named = lists.flatMap(({ countries }) => countries ?? []);
  const countries = lists.some((list) => list.countries != null)
    ? [...new Set(named), ELSEWHERE]
    : [];
  return [ANYWHERE, ...networks].flatMap((network) =>
    [ANYWHERE, ...countries].map((country) => ({ network, country })),
  );
}

/**
 * How a condition can change what somebody may: by the place or the device they ask from, by how
 * often and how long, or not at all.
 */
const ASKED: Readonly<Record<ConditionName, 'place' | 'device' | 'use' | 'not'>> = {
  opens: 'use',
  within: 'use',
  countries: 'place',
  networks: 'place',
  hours: 'use',
  rememberedDevice: 'device',
  passkey: 'device',
  devices: 'device',
  proveEvery: 'device',
  offline: 'not',
  captureDeterrent: 'not',
  passOn: 'not',
};
const NAMES = Object.keys(ASKED) as ConditionName[];
const OF_DEVICES = NAMES.filter((name) => ASKED[name] === 'device');
const LIMITS = NAMES.filter((name) => ASKED[name] === 'device' || ASKED[name] === 'use');

function devicesOf(sides: BeforeAndAfter, now: Moment): Circumstances['device'][] {
  const ceilings = [...sides.before.ceilings, ...sides.after.ceilings];
  const isAsked =
    ceilings.some(({ limits }) => limits.passkey === true) ||
    conditionsOf(sides).some((conditions) => OF_DEVICES.some((name) => conditions[name] != null));
  return isAsked
    ? [ANYWHERE, { id: 'a new device', kept: false, provenAt: now, passkeyAt: null }]
    : [ANYWHERE];
}

/** How often, how long and on what a grant can be used besides where, with those above it. */
function limitsOf({ document, grants }: Compiled, id: GrantId): unknown[] {
  return chainOf(grants, id).links.map(({ terms, givenAt }) => {
    const conditions = underCeilings(terms, givenAt, document.ceilings).terms.conditions ?? {};
    return LIMITS.map((name) => conditions[name] ?? null);
  });
}

function hasLimits(limits: readonly unknown[]): boolean {
  return limits.flat().some((limit) => limit !== null);
}

/**
 * The limits of the grants that an open is charged to, or a right; and of what comes after those,
 * where they can be used up.
 */
function limitsThatMatter(
  side: Compiled,
  { charged, rights }: Granted,
  live: readonly GrantId[],
): string {
  const used = new Set([
    charged,
    ...RIGHTS.flatMap((right) => {
      const verdict = rights[right];
      return verdict.granted ? [verdict.grant] : [];
    }),
  ]);
  const first = [...used].map((id) => limitsOf(side, id));
  if (!first.some(hasLimits)) return JSON.stringify(first);
  return JSON.stringify(live.map((id) => limitsOf(side, id)));
}

/** What somebody can do at a moment, of what is not told by itself. */
type Seen = { readonly decision: Decision; readonly rest: string };

function seen(side: Compiled, who: Who, at: Circumstances): Seen {
  const decision = decide(side.document, { ...who, identity: 'proven', at });
  if (decision.outcome === 'refused') return { decision, rest: '' };
  const live = grantsReaching(side.document, who)
    .filter((grant) => notLive(grant, at) === null)
    .map(({ facts }) => facts.id);
  const { print } = decision.rights;
  return {
    decision,
    rest: JSON.stringify([
      print.granted ? print.printsLeft : null,
      decision.obligations,
      limitsThatMatter(side, decision, live),
    ]),
  };
}

function rightsIn(decision: Granted): Right[] {
  return RIGHTS.filter((right) => decision.rights[right].granted);
}

function isSame(a: Seen, b: Seen): boolean {
  const [was, will] = [a.decision, b.decision];
  if (was.outcome === 'refused' || will.outcome === 'refused') return was.outcome === will.outcome;
  return (
    a.rest === b.rest &&
    was.until === will.until &&
    String(rightsIn(was)) === String(rightsIn(will))
  );
}

function endOf(decision: Decision): Moment | null {
  if (decision.outcome === 'granted') return decision.until;
  return decision.reason === 'expired' ? decision.at : null;
}

/** What is told of the first moment at which somebody can open the document, before or after. */
function told(was: Decision, will: Decision): Omit<Impact, 'other'> {
  const [before, after] = [endOf(was), endOf(will)];
  const both = was.outcome === 'granted' && will.outcome === 'granted';
  const [had, has] = both ? [rightsIn(was), rightsIn(will)] : [[], []];
  return {
    lost: had.filter((right) => !has.includes(right)),
    gained: has.filter((right) => !had.includes(right)),
    until: before === after ? null : { before, after },
    ends: was.outcome === 'granted' && will.outcome === 'refused',
    revives: was.outcome === 'refused' && will.outcome === 'granted',
  };
}

/** What is seen in the same circumstances before a change and after it. */
type Pair = { readonly was: Seen; readonly will: Seen };

function isShut({ was, will }: Pair): boolean {
  return was.decision.outcome === 'refused' && will.decision.outcome === 'refused';
}

function isSameOutcome({ was, will }: Pair): boolean {
  return was.decision.outcome === will.decision.outcome;
}

/** What there is to tell of all that is seen before and after. `null`: nothing differs. */
function compare(pairs: Iterable<Pair>): { readonly first: Pair; readonly rest: boolean } | null {
  let first: Pair | null = null;
  let differs = false;
  let rest = false;
  for (const pair of pairs) {
    if (isShut(pair)) continue;
    first ??= pair;
    differs ||= !isSame(pair.was, pair.will);
    rest ||= isSameOutcome(pair) ? pair.was.rest !== pair.will.rest : isSameOutcome(first);
  }
  return first === null || !differs ? null : { first, rest };
}

/** What is seen everywhere, one pair at a time: there may be thousands. */
function* pairsIn(
  everywhere: readonly Circumstances[],
  variants: readonly { readonly before: Compiled; readonly after: Compiled }[],
  who: Who,
): Generator<Pair> {
  for (const at of everywhere)
    for (const { before, after } of variants)
      yield { was: seen(before, who, at), will: seen(after, who, at) };
}

function saysNothing({ lost, gained, until, ends, revives }: Omit<Impact, 'other'>): boolean {
  return lost.length + gained.length === 0 && until === null && !ends && !revives;
}

/** Every moment at every place on every kind of device, one moment after the other. */
function circumstancesIn(
  moments: readonly Moment[],
  places: ReturnType<typeof placesOf>,
  devices: readonly Circumstances['device'][],
): Circumstances[] {
  return moments.flatMap((now) =>
    places.flatMap((place) =>
      devices.map((device): Circumstances => ({ now, zone: 'UTC', device, ...place })),
    ),
  );
}

/**
 * What a change does to what one person can do with a document, by whatever grants they reach it:
 * compared now and whenever one of them begins or ends, at every place that some list tells apart,
 * within and outside of agreed hours, on known and on new devices. `null`: nothing changes for
 * them.
 */
export function impactOn(sides: BeforeAndAfter, who: Who, now: Moment): Impact | null {
  const hasHours = conditionsOf(sides).some(({ hours }) => hours != null);
  const variants = (hasHours ? [true, false] : [true]).map((within) => ({
    before: atHours(sides.before, within),
    after: atHours(sides.after, within),
  }));
  const [within] = variants;
  if (within === undefined) return null;
  const moments = momentsOf([within.before.document, within.after.document], who, now);
  const everywhere = circumstancesIn(moments, placesOf(sides), devicesOf(sides, now));
  const found = compare(pairsIn(everywhere, variants, who));
  if (found === null) return null;
  const plain = told(found.first.was.decision, found.first.will.decision);
  return { ...plain, other: found.rest || saysNothing(plain) };
}
