import { clockText } from '@/core/base/moment-text';
import { SECOND } from '@/core/base/time';
import type { Conditions, Weekday } from '@/core/policy/conditions';
import { normaliseDomain } from '@/core/policy/address';
import { isCountry } from '@/core/policy/countries';
import { isNetwork } from '@/core/policy/networks';
import { PREFIX } from '@/core/odrl/vocabulary';
import { isObject, type Json } from '@/core/odrl/report';

export type Constraint = {
  readonly leftOperand: string;
  readonly operator: string;
  readonly rightOperand: Json;
};
type Name = keyof Conditions;

/** How a condition is stated: its operands, its value as JSON-LD, and back; `null` where the value is none. */
type Statement = {
  readonly left: string;
  readonly operator: string;
  readonly state: (value: never) => Json;
  readonly read: (value: Json | undefined) => Conditions[Name];
};

const positive = (value: Json | undefined): number | null =>
  typeof value === 'number' && Number.isInteger(value) && value > 0 ? value : null;
const span = {
  state: (ms: number): Json => ({ '@value': `PT${String(ms / SECOND)}S`, '@type': 'xsd:duration' }),
  read: (value: Json | undefined): number | null => {
    const text = isObject(value) ? value['@value'] : value;
    const seconds =
      typeof text === 'string'
        ? /^PT([1-9]\d{0,9}|0\.\d{1,3}|[1-9]\d{0,9}\.\d{1,3})S$/.exec(text)?.[1]
        : undefined;
    return seconds === undefined ? null : Math.round(Number(seconds) * SECOND);
  },
};
const list =
  (passes: (text: string) => boolean) =>
  (value: Json | undefined): readonly string[] | null => {
    const all: readonly Json[] = Array.isArray(value)
      ? (value as readonly Json[])
      : value === undefined
        ? []
        : [value];
    const texts = all.filter((each) => typeof each === 'string');
    return texts.length === all.length && texts.length > 0 && texts.every(passes) ? texts : null;
  };
const STATEMENTS: Readonly<Record<Name, Statement>> = {
  opens: { left: `${PREFIX}:opens`, operator: 'lteq', state: (n: number) => n, read: positive },
  within: { left: 'elapsedTime', operator: 'lt', ...span },
  countries: {
    left: 'spatial',
    operator: 'isAnyOf',
    state: (codes: readonly string[]) => codes,
    read: list(isCountry),
  },
  networks: {
    left: `${PREFIX}:network`,
    operator: 'isAnyOf',
    state: (networks: readonly string[]) => networks,
    read: list(isNetwork),
  },
  hours: {
    left: `${PREFIX}:hours`,
    operator: 'eq',
    state: ({ days, from, to }: NonNullable<Conditions['hours']>) =>
      `${days.join(',')} ${clockText(from)}-${clockText(to)}`,
    read: (value) => {
      const [, days = '', h1 = '', m1 = '', h2 = '', m2 = ''] =
        typeof value === 'string'
          ? (/^([1-7](?:,[1-7])*) (\d\d):([0-5]\d)-(\d\d):([0-5]\d)$/.exec(value) ?? [])
          : [];
      const [from, to] = [Number(h1) * 60 + Number(m1), Number(h2) * 60 + Number(m2)];
      return days === '' || from > 24 * 60 || to > 24 * 60
        ? null
        : { days: days.split(',').map((day) => Number(day) as Weekday), from, to };
    },
  },
  rememberedDevice: {
    left: `${PREFIX}:rememberedDevice`,
    operator: 'eq',
    state: (on: boolean) => on,
    read: (value) => (value === true ? true : null),
  },
  passkey: {
    left: `${PREFIX}:passkey`,
    operator: 'eq',
    state: (on: boolean) => on,
    read: (value) => (value === true ? true : null),
  },
  devices: { left: `${PREFIX}:devices`, operator: 'lteq', state: (n: number) => n, read: positive },
  proveEvery: { left: `${PREFIX}:provenWithin`, operator: 'lt', ...span },
  offline: {
    left: `${PREFIX}:offline`,
    operator: 'lteq',
    state: span.state,
    // None at all is a time as well: it opens there, and asks at every open.
    read: (value) =>
      (isObject(value) ? value['@value'] : value) === 'PT0S' ? 0 : span.read(value),
  },
  captureDeterrent: {
    left: `${PREFIX}:captureDeterrent`,
    operator: 'eq',
    state: (on: boolean) => on,
    read: (value) => (value === true ? true : null),
  },
  passOn: {
    left: `${PREFIX}:passOn`,
    operator: 'eq',
    state: ({ people, domains, steps }: NonNullable<Conditions['passOn']>) =>
      `${String(people)} people, ${String(steps)} steps${domains === null ? '' : `, at ${domains.join(' ')}`}`,
    read: (value) => {
      const [, people = '', steps = '', domains] =
        typeof value === 'string'
          ? (/^([1-9]\d{0,3}) people, ([1-9]) steps(?:, at (@\S+(?: @\S+)*))?$/.exec(value) ?? [])
          : [];
      const named = domains?.split(' ') ?? null;
      return people === '' || named?.some((domain) => normaliseDomain(domain) !== domain) === true
        ? null
        : { people: Number(people), steps: Number(steps), domains: named };
    },
  },
};
const NAMES = Object.keys(STATEMENTS) as Name[];

/** Whether a value says nothing, so that leaving it out says the same. */
function saysNothing(value: Conditions[Name]): boolean {
  return value == null || value === false;
}

/**
 * Conditions as constraints, in an order that is always the same. One that this version does not
 * know is stated as such: nobody reads it as none, and anyone who reads it stops.
 */
export function constraintsOf(conditions: Conditions = {}): Constraint[] {
  const known = NAMES.flatMap((name) => {
    const value = conditions[name];
    const { left, operator, state } = STATEMENTS[name];
    return saysNothing(value)
      ? []
      : [{ leftOperand: left, operator, rightOperand: state(value as never) }];
  });
  const unknown = Object.keys(conditions).filter((name) => !Object.hasOwn(STATEMENTS, name));
  return [
    ...known,
    ...unknown.map((name) => ({
      leftOperand: `${PREFIX}:unknownCondition`,
      operator: 'eq',
      rightOperand: name,
    })),
  ];
}

/** Reads one of these constraints; `null` where it is none of them, or its value cannot be meant. */
export function conditionIn(
  left: Json | undefined,
  operator: Json | undefined,
  right: Json | undefined,
): { readonly name: Name; readonly value: NonNullable<Conditions[Name]> } | null {
  const name = NAMES.find(
    (each) => STATEMENTS[each].left === left && STATEMENTS[each].operator === operator,
  );
  const value = name === undefined ? null : STATEMENTS[name].read(right);
  return name === undefined || value == null ? null : { name, value };
}
