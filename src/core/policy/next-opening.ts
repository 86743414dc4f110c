import { DAY, MINUTE, type Moment } from '@/core/base/time';
import { allGrants, type CompiledDocument } from '@/core/policy/compile';
import { isWithinHours } from '@/core/policy/condition-effects';
import type { Circumstances, Hours } from '@/core/policy/conditions';
import type { Decision } from '@/core/policy/decide';

/** A week, and a day more: where a day of it was missed by a minute, the same day comes again. */
const LOOKS_AHEAD = 8 * DAY;
/** Hours begin and end at whole minutes; so far apart it is looked first. */
const STRIDE = 30 * MINUTE;

function lengthOf({ from, to }: Hours): number {
  return (from < to ? to - from : to + 24 * 60 - from) * MINUTE;
}

/**
 * When hours open next after a moment at which they are closed, to the minute, also across changes of
 * summer time; `null`: within a week they do not.
 */
export function nextOpening(hours: Hours, zone: string, now: Moment): Moment | null {
  const stride = Math.max(MINUTE, Math.min(STRIDE, lengthOf(hours)));
  const start = Math.floor(now / MINUTE) * MINUTE;
  for (let at = start + stride; at <= start + LOOKS_AHEAD; at += stride) {
    if (!isWithinHours(hours, zone, at)) continue;
    let first = at;
    while (first - MINUTE > now && isWithinHours(hours, zone, first - MINUTE)) first -= MINUTE;
    return first;
  }
  return null;
}

/**
 * The same decision with the moment from which it would be another, where it is the hour that refuses
 * and the grant itself says at which hours it opens. Not a part of deciding, which is done for many at
 * once: it looks through a week.
 */
export function withNextOpening(
  decision: Decision,
  policy: CompiledDocument,
  { zone, now }: Pick<Circumstances, 'zone' | 'now'>,
): Decision {
  if (decision.outcome === 'granted' || decision.reason !== 'hours-not-allowed') return decision;
  const grant = allGrants(policy).find(({ facts }) => facts.id === decision.source?.grant);
  const hours = grant?.effective.terms.conditions?.hours;
  if (hours == null || isWithinHours(hours, zone, now)) return decision;
  return { ...decision, at: nextOpening(hours, zone, now) };
}
