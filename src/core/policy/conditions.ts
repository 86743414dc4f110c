import type { Moment } from '@/core/base/time';
import { networkTest, parseAddress } from '@/core/policy/networks';
import { localTime } from '@/core/policy/local-time';

/** Monday is 1, Sunday 7 (ISO 8601). */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;
/**
 * Times of a week, in the recipient's zone. Minutes since midnight; an end not later than the start
 * is on the next day.
 */
export type Hours = {
  readonly days: readonly Weekday[];
  readonly from: number;
  readonly to: number;
};

/**
 * Within what a grant may be passed on: to how many people, at which domains (`@yard.example`;
 * null: any), and how many steps deep.
 */
export type PassOn = {
  readonly people: number;
  readonly domains: readonly string[] | null;
  readonly steps: number;
};

/** What must hold besides the window, for a grant to count. `null` or absent: no condition. */
export type Conditions = {
  /** How many opens in all. */
  readonly opens?: number | null;
  /** How long after the first granted open, in ms. */
  readonly within?: number | null;
  /** ISO 3166-1 alpha-2 codes. */
  readonly countries?: readonly string[] | null;
  /** Networks as CIDR (RFC 4632, RFC 4291 §2.3). */
  readonly networks?: readonly string[] | null;
  readonly hours?: Hours | null;
  /** Only devices that are kept: none that are for one visit. */
  readonly keptDevices?: boolean | null;
  /** On how many devices in all. */
  readonly devices?: number | null;
  /** After how long the address must be proven again, in ms. */
  readonly proveEvery?: number | null;
  /** How long an opened document stays readable without asking again, in ms; absent: it asks at every open. */
  readonly offline?: number | null;
  /** Pages are covered while the window is not in front: a deterrent. */
  readonly captureDeterrent?: boolean | null;
  /** Bounds the right to pass on; absent: to nobody. */
  readonly passOn?: PassOn | null;
};

/** What is known of a request. `null`: not known, which satisfies no condition. `'any'`: not asked about. */
export type Circumstances = {
  readonly now: Moment;
  readonly country: string | null;
  readonly network: string | null;
  /** The recipient's IANA zone, or the organisation's. */
  readonly zone: string;
  readonly device:
    { readonly id: string; readonly kept: boolean; readonly provenAt: Moment } | null | 'any';
};
export const ANYWHERE = 'any';

/** What has been used of a grant. */
export type Used = {
  readonly opens: number;
  readonly prints: number;
  readonly firstOpenedAt: Moment | null;
  readonly devices: readonly string[];
};
export const UNUSED: Used = { opens: 0, prints: 0, firstOpenedAt: null, devices: [] };

type ConditionRefusal =
  | 'prove-again'
  | 'device-not-accepted'
  | 'too-many-devices'
  | 'network-not-allowed'
  | 'place-not-allowed'
  | 'hours-not-allowed'
  | 'opens-used-up'
  | 'condition-unknown';

/** Answers why a request does not meet the conditions, or `null` where it does. */
export type ConditionTest = (at: Circumstances, used: Used) => ConditionRefusal | null;

const KNOWN: Readonly<Record<keyof Conditions, true>> = {
  opens: true,
  within: true,
  countries: true,
  networks: true,
  hours: true,
  keptDevices: true,
  devices: true,
  proveEvery: true,
  offline: true,
  captureDeterrent: true,
  passOn: true,
};

/** Whether this version knows a condition by this name. */
export function isKnownCondition(name: string): name is keyof Conditions {
  return name in KNOWN;
}

/** Names of conditions that this version does not know: written by a later one, or by hand. */
function unknownConditions(conditions: Conditions): string[] {
  return Object.keys(conditions).filter((name) => !isKnownCondition(name));
}

/** Whether minute and weekday lie in the hours; those that pass midnight belong to the day they began on. */
function inHours({ days, from, to }: Hours, weekday: number, minute: number): boolean {
  if (from < to) return days.some((day) => day === weekday) && minute >= from && minute < to;
  const before = weekday === 1 ? 7 : weekday - 1;
  return (
    (minute >= from && days.some((day) => day === weekday)) ||
    (minute < to && days.some((day) => day === before))
  );
}

function deviceTests({ keptDevices, devices, proveEvery }: Conditions): ConditionTest[] {
  const tests: ConditionTest[] = [];
  if (proveEvery != null)
    tests.push(({ device, now }) =>
      device === ANYWHERE || (device !== null && now - device.provenAt < proveEvery)
        ? null
        : 'prove-again',
    );
  if (keptDevices === true)
    tests.push(({ device }) =>
      device === ANYWHERE || device?.kept === true ? null : 'device-not-accepted',
    );
  if (devices != null)
    tests.push(({ device }, used) =>
      device === ANYWHERE ||
      (device !== null && (used.devices.includes(device.id) || used.devices.length < devices))
        ? null
        : 'too-many-devices',
    );
  return tests;
}

/** Addresses that requests came from: each is parsed once, however many lists it is looked for in. */
const addresses = new WeakMap<Circumstances, ReturnType<typeof parseAddress>>();

function addressOf(at: Circumstances): ReturnType<typeof parseAddress> {
  const known = addresses.get(at);
  if (known !== undefined) return known;
  const address = at.network === null ? null : parseAddress(at.network);
  addresses.set(at, address);
  return address;
}

function placeTests(
  { networks, countries, hours }: Conditions,
  alsoWithin: readonly (readonly string[])[],
): ConditionTest[] {
  const tests: ConditionTest[] = [];
  for (const list of networks == null ? alsoWithin : [networks, ...alsoWithin]) {
    const allowed = networkTest(list);
    tests.push((at) =>
      at.network === ANYWHERE || allowed(addressOf(at)) ? null : 'network-not-allowed',
    );
  }
  if (countries != null) {
    const allowed = new Set(countries);
    tests.push(({ country }) =>
      country === ANYWHERE || (country !== null && allowed.has(country))
        ? null
        : 'place-not-allowed',
    );
  }
  if (hours != null) {
    tests.push(({ now, zone }) => {
      const { weekday, minute } = localTime(now, zone);
      return inHours(hours, weekday, minute) ? null : 'hours-not-allowed';
    });
  }
  return tests;
}

/**
 * Makes the test of a grant's conditions, once for many requests. What comes first is what the
 * person can most easily do something about. A condition that is not known refuses.
 *
 * @param alsoWithin further lists of networks, in each of which the request must come from
 */
export function conditionTest(
  conditions: Conditions,
  alsoWithin: readonly (readonly string[])[] = [],
): ConditionTest | null {
  if (unknownConditions(conditions).length > 0) return () => 'condition-unknown';
  const tests = [...deviceTests(conditions), ...placeTests(conditions, alsoWithin)];
  const { opens } = conditions;
  if (opens != null) tests.push((_, used) => (used.opens < opens ? null : 'opens-used-up'));
  if (tests.length === 0) return null;
  return (at, used) => {
    for (const test of tests) {
      const refusal = test(at, used);
      if (refusal !== null) return refusal;
    }
    return null;
  };
}
