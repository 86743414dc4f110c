import { bareDomain } from '@/core/policy/address';
import { clockText } from '@/core/base/moment-text';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type {
  ConditionName,
  Conditions,
  ConditionValue,
  Hours,
  PassOn,
} from '@/core/policy/conditions';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** `3 days`, `1 hour`, in the largest unit that it is whole in. */
export function spanText(ms: number): string {
  const [size, unit] =
    ms % DAY === 0
      ? [ms / DAY, 'day']
      : ms % HOUR === 0
        ? [ms / HOUR, 'hour']
        : [Math.round(ms / MINUTE), 'minute'];
  return `${String(size)} ${unit}${size === 1 ? '' : 's'}`;
}

/** `Mon to Fri, 08:00 to 17:00`. Days that follow each other are one stretch. */
function hoursText({ days, from, to }: Hours): string {
  const sorted = [...new Set(days)].sort();
  const inRow =
    sorted.length > 2 &&
    sorted.every((day, index) => index === 0 || day === (sorted[index - 1] ?? 0) + 1);
  const named = sorted.map((day) => DAYS[day - 1] ?? '');
  const dayText =
    sorted.length === 7
      ? 'every day'
      : inRow
        ? `${named[0] ?? ''} to ${named.at(-1) ?? ''}`
        : named.join(', ');
  return `${dayText}, ${clockText(from)} to ${clockText(to)}`;
}

/** `for 2 people more at yard.example, passed on 1 step deep`. */
function passOnText({ people, domains, steps }: PassOn): string {
  const where = domains === null ? '' : ` at ${domains.map(bareDomain).join(', ')}`;
  return (
    `for ${String(people)} ${people === 1 ? 'person' : 'people'} more${where}, passed on ` +
    `${String(steps)} ${steps === 1 ? 'step' : 'steps'} deep`
  );
}

/** Each condition in words; empty where its value asks nothing. */
const LINES: {
  readonly [Name in ConditionName]-?: (value: ConditionValue<Name>, zone: string) => string;
} = {
  opens: (most) => `opens ${most === 1 ? 'once' : `${String(most)} times`}`,
  within: (span) => `for ${spanText(span)} from the first open on`,
  countries: (codes) => (codes.length === 0 ? 'from no country' : `only from ${codes.join(', ')}`),
  networks: (networks) =>
    `only from the IP address range${networks.length === 1 ? '' : 's'} ${networks.join(', ')}`,
  hours: (hours, zone) => `only ${hoursText(hours)} (${zone})`,
  rememberedDevice: (on) => (on ? 'only on a remembered device' : ''),
  passkey: (on) => (on ? 'with a passkey besides the email address' : ''),
  devices: (most) => `on ${String(most)} ${most === 1 ? 'device' : 'devices'} at most`,
  proveEvery: (span) => `proving the email address every ${spanText(span)}`,
  offline: (span) =>
    span === 0
      ? 'also on their own machine, asking at every open'
      : `also on their own machine, readable there for ${spanText(span)} without asking again`,
  captureDeterrent: (on) => (on ? 'with the pages covered while another window is in front' : ''),
  passOn: passOnText,
};

/** Every condition there is. */
export const CONDITION_NAMES = Object.keys(LINES) as readonly ConditionName[];

function lineOf<Name extends ConditionName>(
  name: Name,
  value: Conditions[Name],
  zone: string,
): string {
  const line = LINES[name] as (value: ConditionValue<Name>, zone: string) => string;
  return value == null ? '' : line(value, zone);
}

/** Conditions in words, a line each. `zone`: the one that hours are told in. */
export function conditionLines(conditions: Conditions | null | undefined, zone: string): string[] {
  if (conditions == null) return [];
  return CONDITION_NAMES.map((name) => lineOf(name, conditions[name], zone)).filter(
    (line) => line !== '',
  );
}
