// What each condition does to a grant: one table, and a condition that does nothing cannot be in it.
import type { Moment } from '@/core/base/time';
import {
  ANYWHERE,
  PASSKEY_HOLDS,
  type AskingDevice,
  type Circumstances,
  type ConditionName,
  type Conditions,
  type ConditionTest,
  type ConditionValue,
  type Hours,
  type PassOn,
  type Used,
} from '@/core/policy/conditions';
import { localTime } from '@/core/policy/local-time';
import { networkTest, parseAddress } from '@/core/policy/networks';
import { passOnWithin } from '@/core/policy/passing-on';

/** What holds while a grant is used, and within what it can be passed on. */
export type Bounds = {
  /**
   * How long a document opened on the person's own machine stays readable without asking again, in
   * ms; 0: it asks at every open; null: it does not open there.
   */
  readonly offline: number | null;
  readonly captureDeterrent: boolean;
  /** Absent to nobody, whatever the rights say. */
  readonly passOn: PassOn | null;
};

/**
 * How a condition is held: tested at every request (of two, both are), ending the grant (of two,
 * the earlier end), or as a bound of its use (of two, see `boundsWithin`).
 */
type Effect<Name extends ConditionName> =
  | { readonly test: (value: ConditionValue<Name>) => ConditionTest }
  | { readonly end: (value: ConditionValue<Name>, used: Used) => Moment | null }
  | (Name extends keyof Bounds ? 'bound' : never);

/** Whether minute and weekday lie in the hours; those that pass midnight belong to the day they began on. */
function inHours({ days, from, to }: Hours, weekday: number, minute: number): boolean {
  if (from < to) return days.some((day) => day === weekday) && minute >= from && minute < to;
  const before = weekday === 1 ? 7 : weekday - 1;
  return (
    (minute >= from && days.some((day) => day === weekday)) ||
    (minute < to && days.some((day) => day === before))
  );
}

/** Whether a moment lies in hours, as clocks in a zone show it. */
export function isWithinHours(hours: Hours, zone: string, at: Moment): boolean {
  const { weekday, minute } = localTime(at, zone);
  return inHours(hours, weekday, minute);
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

function networkConditionTest(networks: readonly string[]): ConditionTest {
  const allowed = networkTest(networks);
  return (at) => (at.network === ANYWHERE || allowed(addressOf(at)) ? null : 'network-not-allowed');
}

function isPasskeyFresh(device: AskingDevice | null, now: Moment): boolean {
  return device?.passkeyAt != null && now - device.passkeyAt < PASSKEY_HOLDS;
}

/** The order is the one of the tests: what the person can most easily do something about comes first. */
const EFFECTS: { readonly [Name in ConditionName]-?: Effect<Name> } = {
  proveEvery: {
    test:
      (span) =>
      ({ device, now }) =>
        device === ANYWHERE || (device !== null && now - device.provenAt < span)
          ? null
          : 'prove-again',
  },
  passkey: {
    test:
      (asked) =>
      ({ device, now }) =>
        !asked || device === ANYWHERE || isPasskeyFresh(device, now) ? null : 'passkey-needed',
  },
  rememberedDevice: {
    test:
      (asked) =>
      ({ device }) =>
        !asked || device === ANYWHERE || device?.kept === true ? null : 'device-not-accepted',
  },
  devices: {
    test:
      (most) =>
      ({ device }, used) =>
        device === ANYWHERE ||
        (device !== null && (used.devices.includes(device.id) || used.devices.length < most))
          ? null
          : 'too-many-devices',
  },
  networks: { test: networkConditionTest },
  countries: {
    test: (countries) => {
      const allowed = new Set(countries);
      return ({ country }) =>
        country === ANYWHERE || (country !== null && allowed.has(country))
          ? null
          : 'place-not-allowed';
    },
  },
  hours: {
    test:
      (hours) =>
      ({ now, zone }) =>
        isWithinHours(hours, zone, now) ? null : 'hours-not-allowed',
  },
  opens: { test: (most) => (_, used) => (used.opens < most ? null : 'opens-used-up') },
  within: {
    end: (span, { firstOpenedAt }) => (firstOpenedAt === null ? null : firstOpenedAt + span),
  },
  offline: 'bound',
  captureDeterrent: 'bound',
  passOn: 'bound',
};
const NAMES = Object.keys(EFFECTS) as ConditionName[];

/** The same table for anyone who walks along it: name and value belong together as they are looked up. */
const ANY: Readonly<
  Record<
    ConditionName,
    | { readonly test: (value: never) => ConditionTest }
    | { readonly end: (value: never, used: Used) => Moment | null }
    | 'bound'
  >
> = EFFECTS;
const TESTS = NAMES.flatMap((name) => {
  const effect = ANY[name];
  return effect !== 'bound' && 'test' in effect ? [{ name, test: effect.test }] : [];
});
const ENDS = NAMES.flatMap((name) => {
  const effect = ANY[name];
  return effect !== 'bound' && 'end' in effect ? [{ name, end: effect.end }] : [];
});

/** Whether this version knows a condition by this name. */
export function isKnownCondition(name: string): name is ConditionName {
  return Object.hasOwn(EFFECTS, name);
}

/**
 * Makes the test of a grant's conditions, once for many requests. A condition that is not known
 * refuses.
 *
 * @param alsoWithin further lists of networks, in each of which the request must come from
 */
export function conditionTest(
  conditions: Conditions,
  alsoWithin: readonly (readonly string[])[] = [],
): ConditionTest | null {
  if (!Object.keys(conditions).every(isKnownCondition)) return () => 'condition-unknown';
  const tests: ConditionTest[] = [];
  for (const { name, test } of TESTS) {
    const value = conditions[name];
    if (value != null) tests.push(test(value as never));
    if (name === 'networks') tests.push(...alsoWithin.map(networkConditionTest));
  }
  if (tests.length === 0) return null;
  return (at, used) => {
    for (const test of tests) {
      const refusal = test(at, used);
      if (refusal !== null) return refusal;
    }
    return null;
  };
}

/** When conditions end a grant that was used so; Infinity: they do not. */
export function conditionsEnd(conditions: Conditions, used: Used): number {
  let end = Number.POSITIVE_INFINITY;
  for (const { name, end: endOf } of ENDS) {
    const value = conditions[name];
    if (value != null) end = Math.min(end, endOf(value as never, used) ?? end);
  }
  return end;
}

/** The bounds that conditions put to the use of a grant. */
export function boundsOf({ offline, captureDeterrent, passOn }: Conditions): Bounds {
  return {
    offline: offline ?? null,
    captureDeterrent: captureDeterrent === true,
    passOn: passOn ?? null,
  };
}

function shorterOf(own: Bounds['offline'], above: Bounds['offline']): Bounds['offline'] {
  return own === null || above === null ? null : Math.min(own, above);
}

/** The bounds of a grant that was passed on, within those of the grant above it. */
export function boundsWithin(own: Bounds, above: Bounds): Bounds {
  return {
    offline: shorterOf(own.offline, above.offline),
    captureDeterrent: own.captureDeterrent || above.captureDeterrent,
    passOn: passOnWithin(own.passOn, above.passOn),
  };
}
