import { expect, test } from 'vitest';
import { discsOf } from '@/ui/opens/opens-plot';

test('days lie along the span, and a day with more opens is larger', () => {
  const discs = discsOf([{ day: '2026-03-01', opens: 1 }, { day: '2026-03-06', opens: 4 }, { day: '2026-03-11', opens: 2 }], { first: '2026-03-01', last: '2026-03-11' }, 4);
  expect(discs.map(({ x }) => x)).toEqual([0, 50, 100]);
  expect(discs.map(({ r }) => r)).toEqual([3, 4.5, 1.5 + 3 * Math.sqrt(0.5)]);
  expect(discsOf([{ day: '2026-03-01', opens: 1 }], { first: '2026-03-01', last: '2026-03-01' }, 1)[0]?.x).toBe(0);
});
