import type { Moment } from '@/core/base/time';
import { underCeilings, type Ceiling } from '@/core/policy/ceiling';
import type { Right, Terms } from '@/core/policy/rights';

/** What a change does to one grant. Ends are in ms; `null`: no end. */
export type Impact = {
  readonly lost: readonly Right[];
  readonly gained: readonly Right[];
  readonly until: { readonly before: Moment | null; readonly after: Moment | null } | null;
  /** Whether its access ends the moment the change is made. */
  readonly ends: boolean;
  /** Whether it begins again the moment the change is made. */
  readonly revives: boolean;
  /** Whether how often or from where it can be used changes. */
  readonly other: boolean;
};

const over = (until: Moment | null, now: Moment): boolean => until !== null && until <= now;

type Narrowed = ReturnType<typeof underCeilings>;

/** Whether how often or from where something can be used is the same. Lists are compared as they stand: both come from the same places. */
function samePlaces(a: Narrowed, b: Narrowed): boolean {
  const [before, after] = [a.terms.conditions, b.terms.conditions];
  if (a.terms.prints !== b.terms.prints || before?.opens !== after?.opens) return false;
  if (a.alsoWithin.length === 0 && b.alsoWithin.length === 0 && before?.countries == null && after?.countries == null) return true;
  return JSON.stringify([before?.countries, a.alsoWithin]) === JSON.stringify([after?.countries, b.alsoWithin]);
}

/** What a change of ceilings does to one grant, or `null` where it does nothing to it. */
export function impactOn(terms: Terms, givenAt: Moment, before: readonly Ceiling[], after: readonly Ceiling[], now: Moment): Impact | null {
  return impactBetween(underCeilings(terms, givenAt, before), underCeilings(terms, givenAt, after), now);
}

/** What lies between two outcomes of one grant, or `null` where nothing does: what is over either way is not touched. */
export function impactBetween(was: Narrowed, will: Narrowed, now: Moment): Impact | null {
  const [overBefore, overAfter] = [over(was.terms.until, now), over(will.terms.until, now)];
  if (overBefore && overAfter) return null;
  const lost = was.terms.rights.filter((right) => !will.terms.rights.includes(right));
  const gained = will.terms.rights.filter((right) => !was.terms.rights.includes(right));
  const until = was.terms.until === will.terms.until ? null : { before: was.terms.until, after: will.terms.until };
  const other = !samePlaces(was, will);
  if (lost.length === 0 && gained.length === 0 && until === null && !other) return null;
  return { lost, gained, until, ends: overAfter, revives: overBefore, other };
}
