import type { Ceiling, Limits } from '@/core/policy/ceiling';

/**
 * Which limits of a ceiling can have no effect beside the others, and why: said beside the setting rather than found out later.
 *
 * @param all the ceilings as they will be, this one among them
 */
export function idleLimits({ level, subject, limits }: Pick<Ceiling, 'level' | 'subject' | 'limits'>, all: readonly Ceiling[]): string[] {
  const idle: string[] = [];
  if (limits.prints !== null && limits.rights !== null && !limits.rights.includes('print')) idle.push('A number of prints limits nothing where printing is not allowed at all.');
  if (limits.rights?.includes('keep') === true && (limits.prints !== null || !limits.rights.includes('print') || !limits.rights.includes('copy'))) idle.push('Keep stays impossible: it needs copy, and print without a limit.');
  const outer = all.find((each) => each.level === 'organisation' && !(level === each.level && subject === each.subject));
  if (outer === undefined) return idle;
  for (const name of ['days', 'prints', 'opens'] as const) if (atLeast(limits, outer.limits, name)) idle.push(`The organisation’s own limit of ${String(outer.limits[name])} ${name === 'days' ? 'days' : name} is as strict already.`);
  const { rights } = outer.limits;
  if (limits.rights !== null && rights?.every((right) => limits.rights?.includes(right)) === true) idle.push('The organisation allows no more rights than this already.');
  return idle;
}

function atLeast(limits: Limits, outer: Limits, name: 'days' | 'prints' | 'opens'): boolean {
  const [own, above] = [limits[name], outer[name]];
  return own !== null && above !== null && own >= above;
}
