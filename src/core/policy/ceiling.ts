import type { Moment } from '@/core/base/time';
import { DAY } from '@/core/base/time';
import type { Conditions } from '@/core/policy/conditions';
import type { Subject } from '@/core/policy/levels';
import type { Right, Terms } from '@/core/policy/rights';

/** The most that terms below may give. `null`: no limit. */
export type Limits = {
  readonly rights: readonly Right[] | null;
  /** Days from the giving on. */
  readonly days: number | null;
  readonly prints: number | null;
  readonly opens: number | null;
  /** ISO 3166-1 alpha-2 codes. */
  readonly countries: readonly string[] | null;
  /** CIDR. */
  readonly networks: readonly string[] | null;
  /** A passkey is asked for besides the address. */
  readonly passkey: true | null;
  /** How long a document may stay readable on a person's own machine, in ms; `never`: it does not open there. */
  readonly offline: number | 'never' | null;
};
export const NO_LIMITS: Limits = {
  rights: null,
  days: null,
  prints: null,
  opens: null,
  countries: null,
  networks: null,
  passkey: null,
  offline: null,
};

export type Ceiling = Subject & {
  readonly limits: Limits;
  readonly setBy: string;
  readonly setAt: Moment;
};

/** Which of these two sets a value: the grant itself, or the ceiling that took something from it. */
export type Origin =
  { readonly from: 'grant' } | { readonly from: 'ceiling'; readonly ceiling: Ceiling };
const OWN: Origin = { from: 'grant' };

/** Terms as they come out under the ceilings, with where each value comes from. */
export type Effective = {
  readonly terms: Terms;
  /** The ceiling that took a right which the grant gives. */
  readonly taken: ReadonlyMap<Right, Ceiling>;
  readonly origins: Readonly<
    Record<'until' | 'prints' | 'opens' | 'countries' | 'networks' | 'passkey' | 'offline', Origin>
  >;
};

/** Whether limits limit anything. */
export function limitsAnything(limits: Limits): boolean {
  return Object.values(limits).some((limit) => limit !== null);
}

const NOTHING_TAKEN: ReadonlyMap<Right, Ceiling> = new Map();
const ALL_OWN: Effective['origins'] = {
  until: OWN,
  prints: OWN,
  opens: OWN,
  countries: OWN,
  networks: OWN,
  passkey: OWN,
  offline: OWN,
};

type Narrowed<T> = { readonly value: T; readonly origin: Origin };

function least(
  own: number | null,
  ceilings: readonly Ceiling[],
  limitOf: (ceiling: Ceiling) => number | null,
): Narrowed<number | null> {
  let found: Narrowed<number | null> = { value: own, origin: OWN };
  for (const ceiling of ceilings) {
    const limit = limitOf(ceiling);
    if (limit !== null && (found.value === null || limit < found.value))
      found = { value: limit, origin: { from: 'ceiling', ceiling } };
  }
  return found;
}

function common(
  own: readonly string[] | null,
  ceilings: readonly Ceiling[],
  which: 'countries' | 'networks',
): Narrowed<readonly string[] | null>[] {
  const all: Narrowed<readonly string[] | null>[] =
    own === null ? [] : [{ value: own, origin: OWN }];
  for (const ceiling of ceilings)
    if (ceiling.limits[which] !== null)
      all.push({ value: ceiling.limits[which], origin: { from: 'ceiling', ceiling } });
  return all;
}

/** The rights that every ceiling leaves, and which ceiling takes each of the others. */
function rightsLeft(own: readonly Right[], ceilings: readonly Ceiling[]) {
  const taken = new Map<Right, Ceiling>();
  const rights = own.filter((right) => {
    const taker = ceilings.find(
      ({ limits }) => limits.rights !== null && !limits.rights.includes(right),
    );
    if (taker !== undefined) taken.set(right, taker);
    return taker === undefined;
  });
  return { rights, taken };
}

/** Whether a passkey is asked for, by the grant or by a ceiling. */
function passkeyAsked(own: boolean | null, ceilings: readonly Ceiling[]): Narrowed<boolean | null> {
  const asking = ceilings.find(({ limits }) => limits.passkey === true);
  return own === true || asking === undefined
    ? { value: own, origin: OWN }
    : { value: true, origin: { from: 'ceiling', ceiling: asking } };
}

/** How long a document stays readable on a person's own machine; null: it does not open there. */
function offlineLeft(
  { offline = null }: Conditions,
  ceilings: readonly Ceiling[],
): Narrowed<number | null> {
  let found: Narrowed<number | null> = { value: offline, origin: OWN };
  for (const ceiling of ceilings) {
    const limit = ceiling.limits.offline;
    if (limit === null || found.value === null) continue;
    if (limit === 'never') found = { value: null, origin: { from: 'ceiling', ceiling } };
    else if (limit < found.value) found = { value: limit, origin: { from: 'ceiling', ceiling } };
  }
  return found;
}

/**
 * The grant's own conditions, with a passkey where one is asked for, the fewest opens, the shortest
 * time offline, and the countries that all lists have in common.
 */
function narrowedBy(
  own: Conditions | undefined,
  { opens, passkey, offline }: Pick<Conditions, 'opens' | 'passkey' | 'offline'>,
  countries: readonly Narrowed<readonly string[] | null>[],
): Conditions | undefined {
  const asked = {
    ...(opens == null ? {} : { opens }),
    ...(passkey == null ? {} : { passkey }),
    ...(own?.offline == null ? {} : { offline }),
  };
  const counted = Object.keys(asked).length === 0 ? own : { ...own, ...asked };
  const [first, ...others] = countries.map(({ value }) => value ?? []);
  if (first === undefined) return counted;
  return {
    ...counted,
    countries: first.filter((code) => others.every((list) => list.includes(code))),
  };
}

/**
 * What a grant's terms come to under every ceiling: the strictest wins, whatever the order.
 * `given`: when the grant was made, from which the days of a ceiling are counted.
 *
 * Countries are what all lists have in common. Networks of several levels do not reduce to one
 * list: `networks` of the terms is the grant's own, and `alsoWithin` holds one list for each
 * ceiling.
 */
export function underCeilings(
  own: Terms,
  given: Moment,
  ceilings: readonly Ceiling[],
): Effective & { readonly alsoWithin: readonly (readonly string[])[] } {
  if (ceilings.length === 0)
    return { terms: own, taken: NOTHING_TAKEN, origins: ALL_OWN, alsoWithin: [] };
  const { rights, taken } = rightsLeft(own.rights, ceilings);
  const conditions: Conditions = own.conditions ?? {};
  const until = least(own.until, ceilings, ({ limits }) =>
    limits.days === null ? null : given + limits.days * DAY,
  );
  const prints = least(own.prints, ceilings, ({ limits }) => limits.prints);
  const opens = least(conditions.opens ?? null, ceilings, ({ limits }) => limits.opens);
  const countries = common(conditions.countries ?? null, ceilings, 'countries');
  const networks = common(conditions.networks ?? null, ceilings, 'networks');
  const passkey = passkeyAsked(conditions.passkey ?? null, ceilings);
  const offline = offlineLeft(conditions, ceilings);
  const narrowed = narrowedBy(
    own.conditions,
    { opens: opens.value, passkey: passkey.value, offline: offline.value },
    countries,
  );
  return {
    terms: {
      rights,
      from: own.from,
      until: until.value,
      prints: prints.value,
      ...(narrowed === undefined ? {} : { conditions: narrowed }),
    },
    taken,
    origins: {
      until: until.origin,
      prints: prints.origin,
      opens: opens.origin,
      countries: countries.at(-1)?.origin ?? OWN,
      networks: networks.at(-1)?.origin ?? OWN,
      passkey: passkey.origin,
      offline: offline.origin,
    },
    alsoWithin: ceilings.flatMap(({ limits }) =>
      limits.networks === null ? [] : [limits.networks],
    ),
  };
}
