import type { Ceiling, Limits } from '@/core/policy/ceiling';
import type { Defaults } from '@/core/policy/defaults';

/**
 * Which limits of a ceiling can have no effect beside the others, and why: said beside the setting
 * rather than found out later.
 *
 * @param all the ceilings as they will be, this one among them
 */
export function idleLimits(
  { level, subject, limits }: Pick<Ceiling, 'level' | 'subject' | 'limits'>,
  all: readonly Ceiling[],
): string[] {
  const outer = all.find(
    (each) => each.level === 'organisation' && !(level === each.level && subject === each.subject),
  );
  return [...idleAlone(limits), ...(outer === undefined ? [] : idleUnder(limits, outer.limits))];
}

/** What of the limits has no effect whatever stands around them. */
function idleAlone({ rights, prints }: Limits): string[] {
  if (rights === null) return [];
  const mayPrint = rights.includes('print');
  const mayKeep = prints === null && mayPrint && rights.includes('copy');
  return [
    ...(prints !== null && !mayPrint
      ? ['A number of prints has no effect where printing is not allowed.']
      : []),
    ...(rights.includes('keep') && !mayKeep
      ? ['Keep a copy stays impossible: it needs Copy text, and Print without a limit.']
      : []),
  ];
}

/** What of the limits the organisation's own have already. */
function idleUnder(limits: Limits, outer: Limits): string[] {
  const counts = (['days', 'prints', 'opens'] as const)
    .filter((name) => atLeast(limits, outer, name))
    .map(
      (name) =>
        `The organisation’s own limit of ${String(outer[name])} ${name} is as strict already.`,
    );
  if (limits.passkey === true && outer.passkey === true)
    counts.push('The organisation asks for a passkey already.');
  if (limits.offline !== null && outer.offline === 'never')
    counts.push('The organisation lets nothing be opened on people’s own machines already.');
  const isWider =
    limits.rights !== null && outer.rights?.every((right) => limits.rights?.includes(right));
  return isWider === true
    ? [...counts, 'The organisation allows no more rights than this already.']
    : counts;
}

function atLeast(limits: Limits, outer: Limits, name: 'days' | 'prints' | 'opens'): boolean {
  const [own, above] = [limits[name], outer[name]];
  return own !== null && above !== null && own >= above;
}

/**
 * Which defaults of a level a ceiling over it takes at once, so that a dispatch would begin with
 * less: `over` are the ceilings that reach it for certain.
 */
export function idleDefaults(
  { rights, days, prints }: Defaults,
  over: readonly Ceiling[],
): string[] {
  return over.flatMap(({ level, limits }) => {
    const by = `the ceiling of ${level === 'organisation' ? 'the organisation' : `this ${level}`}`;
    return [
      ...takenRights(rights, limits, by),
      ...shorterDays(days, limits, by),
      ...fewerPrints({ rights, prints }, limits, by),
    ];
  });
}

function takenRights(rights: Defaults['rights'], limits: Limits, by: string): string[] {
  const taken =
    rights?.filter((right) => limits.rights !== null && !limits.rights.includes(right)) ?? [];
  return taken.length === 0
    ? []
    : [`The right to ${taken.join(', ')} has no effect: ${by} takes it.`];
}

function shorterDays(days: Defaults['days'], limits: Limits, by: string): string[] {
  if (limits.days === null || days === null) return [];
  if (days !== 'no-end' && days <= limits.days) return [];
  const stated = days === 'no-end' ? 'No end' : `${String(days)} days`;
  return [`${stated} has no effect: ${by} ends access after ${String(limits.days)}.`];
}

function fewerPrints(
  { rights, prints }: Pick<Defaults, 'rights' | 'prints'>,
  limits: Limits,
  by: string,
): string[] {
  if (limits.prints === null || rights?.includes('print') !== true) return [];
  if (prints !== null && prints <= limits.prints) return [];
  return [`More than ${String(limits.prints)} prints has no effect: ${by} allows no more.`];
}
