import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test, vi } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import { reachScale, snapTo } from '@/ui/reach/reach-scale';

const start = Date.UTC(2026, 10, 2, 8);

describe('the scale of reach lines', () => {
  prop.prop([fc.integer({ min: 2, max: 900 * 24 }), fc.integer({ min: 200, max: 1600 })])(
    'leaves every tick room for its label, whatever the span and width',
    (hours, width) => {
      const { ticks, x } = reachScale([start, start + hours * HOUR], width, 'UTC');
      const places = ticks.map((tick) => x(tick.at));
      for (const [i, place] of places.entries()) {
        expect(place).toBeGreaterThanOrEqual(0);
        expect(place).toBeLessThanOrEqual(width);
        expect(place - (places[i - 1] ?? -Infinity)).toBeGreaterThan(30);
      }
    },
  );

  test('moves an end by whole days over weeks, by hours over days, and never off the picture', () => {
    const weeks = reachScale([start, start + 30 * DAY], 600, 'UTC');
    const end = start + 10 * DAY + 9 * HOUR;
    const moved = snapTo(weeks, end, weeks.x(end) + 47);
    expect(Math.abs(moved - end) % DAY).toBe(0);
    expect(Math.abs(weeks.x(moved) - (weeks.x(end) + 47))).toBeLessThan(
      weeks.x(start + DAY) / 2 + 1,
    );
    const days = reachScale([start, start + 3 * DAY], 600, 'UTC');
    expect(Math.abs(snapTo(days, end, 111) - end) % HOUR).toBe(0);
    expect(snapTo(weeks, end, 9_999)).toBeLessThanOrEqual(start + 31 * DAY);
    expect(snapTo(weeks, end, -50)).toBeGreaterThanOrEqual(start - DAY);
  });

  test('has the same ticks in every browser while it is drawn in UTC', () => {
    const labels = () => reachScale([start, start + 40 * DAY], 460, 'UTC').ticks;
    const here = labels();
    vi.stubEnv('TZ', 'Pacific/Auckland');
    expect(labels()).toEqual(here);
    expect(reachScale([start, start + 40 * DAY], 460, 'Pacific/Auckland').ticks).not.toEqual(here);
    vi.unstubAllEnvs();
  });
});
