import { expect, test } from 'vitest';
import { discsOf } from '@/ui/opens/opens-plot';

test('days lie along the span, and a day with more opens is larger', () => {
  const discs = discsOf(
    [
      { day: '2026-03-01', opens: 1 },
      { day: '2026-03-06', opens: 4 },
      { day: '2026-03-11', opens: 2 },
    ],
    { first: '2026-03-01', last: '2026-03-11' },
    4,
  );
  expect(discs.map(({ x }) => x)).toEqual([0, 50, 100]);
  expect(discs.map(({ r }) => r)).toEqual([3, 4.5, 1.5 + 3 * Math.sqrt(0.5)]);
  expect(
    discsOf([{ day: '2026-03-01', opens: 1 }], { first: '2026-03-01', last: '2026-03-01' }, 1)[0]
      ?.x,
  ).toBe(0);
});

test('a year of days is as few discs as a line holds, and none is lost', () => {
  const days = Array.from({ length: 365 }, (_, n) => ({
    day: new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10),
    opens: 1,
  }));
  const discs = discsOf(days, { first: '2026-01-01', last: '2026-12-31' }, 1);
  expect(discs.length).toBeLessThanOrEqual(61);
  expect(discs.reduce((sum, { opens }) => sum + opens, 0)).toBe(365);
});
