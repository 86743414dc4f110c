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
  const idle: string[] = [];
  if (limits.prints !== null && limits.rights !== null && !limits.rights.includes('print'))
    idle.push('A number of prints has no effect where printing is not allowed.');
  if (
    limits.rights?.includes('keep') === true &&
    (limits.prints !== null || !limits.rights.includes('print') || !limits.rights.includes('copy'))
  )
    idle.push('Keep a copy stays impossible: it needs Copy text, and Print without a limit.');
  const outer = all.find(
    (each) => each.level === 'organisation' && !(level === each.level && subject === each.subject),
  );
  if (outer === undefined) return idle;
  for (const name of ['days', 'prints', 'opens'] as const)
    if (atLeast(limits, outer.limits, name))
      idle.push(
        `The organisation’s own limit of ${String(outer.limits[name])} ` +
          `${name === 'days' ? 'days' : name} is as strict already.`,
      );
  const { rights } = outer.limits;
  if (limits.rights !== null && rights?.every((right) => limits.rights?.includes(right)) === true)
    idle.push('The organisation allows no more rights than this already.');
  return idle;
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
  const idle: string[] = [];
  for (const { level, limits } of over) {
    const by = `the ceiling of ${level === 'organisation' ? 'the organisation' : `this ${level}`}`;
    const taken =
      rights?.filter((right) => limits.rights !== null && !limits.rights.includes(right)) ?? [];
    if (taken.length > 0)
      idle.push(`The right to ${taken.join(', ')} has no effect: ${by} takes it.`);
    if (limits.days !== null && days !== null && (days === 'no-end' || days > limits.days))
      idle.push(
        `${days === 'no-end' ? 'No end' : `${String(days)} days`} has no effect: ${by} ends ` +
          `access after ${String(limits.days)}.`,
      );
    if (
      limits.prints !== null &&
      rights?.includes('print') === true &&
      (prints === null || prints > limits.prints)
    )
      idle.push(`More than ${String(limits.prints)} prints has no effect: ${by} allows no more.`);
  }
  return idle;
}
