import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { DAY, MINUTE } from '@/core/base/time';
import { isWithinHours } from '@/core/policy/condition-effects';
import type { Weekday } from '@/core/policy/conditions';
import { nextOpening } from '@/core/policy/next-opening';

const OSLO = 'Europe/Oslo';
const office = { days: [1, 2, 3, 4, 5] as Weekday[], from: 8 * 60, to: 17 * 60 };
const at = (text: string): number => Date.parse(text);

describe('hours open again', () => {
  test.each([
    ['in the evening, the next morning', '2026-11-25T18:00:00Z', '2026-11-26T07:00:00Z'],
    ['on a Friday night, on Monday', '2026-11-27T20:13:00Z', '2026-11-30T07:00:00Z'],
    ['over the end of summer time', '2026-10-24T12:00:00Z', '2026-10-26T07:00:00Z'],
    ['a minute before', '2026-11-26T06:59:30Z', '2026-11-26T07:00:00Z'],
  ])('%s', (_name, now, then) => {
    expect(nextOpening(office, OSLO, at(now))).toBe(at(then));
  });

  test('never, where no day is named', () => {
    expect(nextOpening({ ...office, days: [] }, OSLO, at('2026-11-25T18:00:00Z'))).toBeNull();
  });

  const minute = fc.integer({ min: 0, max: 1_439 });
  prop.prop(
    [
      fc.subarray<Weekday>([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
      minute,
      minute,
      fc.constantFrom(OSLO, 'Asia/Kathmandu', 'America/New_York'),
      fc.integer({ min: at('2026-03-01T00:00:00Z'), max: at('2026-12-01T00:00:00Z') }),
    ],
    { numRuns: 40 },
  )('at the first moment at which they are open', (days, from, to, zone, now) => {
    const hours = { days, from, to };
    fc.pre(!isWithinHours(hours, zone, now));
    const then = nextOpening(hours, zone, now);
    expect(then).not.toBeNull();
    if (then === null) return;
    expect(then).toBeGreaterThan(now);
    expect(then).toBeLessThanOrEqual(now + 8 * DAY);
    expect(isWithinHours(hours, zone, then)).toBe(true);
    expect(isWithinHours(hours, zone, then - MINUTE)).toBe(false);
  });
});
