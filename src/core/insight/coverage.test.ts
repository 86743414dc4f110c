import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import {
  coverageWords,
  readRanges,
  stripOf,
  summaryWords,
  timesByPage,
} from '@/core/insight/coverage';

const shown = (...pages: readonly [number, number][]) =>
  timesByPage([pages.map(([page, shownFor]) => ({ page, shownFor }))]);

describe('what was read', () => {
  test.each<[string, ReadonlyMap<number, number>, number, string]>([
    ['nothing that was in view', shown(), 5, 'opened, nothing seen'],
    ['glimpses while passing', shown([1, 900], [2, 1_999]), 5, 'opened, nothing seen'],
    ['one page', shown([1, 4_000]), 5, 'read page 1'],
    ['pages in a row', shown([1, 4_000], [2, 4_000], [3, 9_000]), 5, 'read pages 1 to 3'],
    ['pages apart', shown([1, 4_000], [4, 4_000], [5, 3_000]), 9, 'read pages 1, 4 to 5'],
    ['all', shown([1, 4_000], [2, 4_000]), 2, 'read all'],
    ['the only page', shown([1, 4_000]), 1, 'read'],
    [
      'many here and there',
      shown([1, 3e3], [3, 3e3], [5, 3e3], [7, 3e3], [9, 3e3]),
      20,
      'read 5 of 20 pages',
    ],
  ])('%s', (_what, times, pages, words) => {
    expect(coverageWords(times, pages)).toBe(words);
  });

  test('adds up over several opens', () => {
    const twice = [[{ page: 1, shownFor: 1_200 }], [{ page: 1, shownFor: 1_200 }]];
    expect(coverageWords(timesByPage(twice), 3)).toBe('read page 1');
  });

  prop.prop([
    fc.array(fc.tuple(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 0, max: 10_000 }))),
    fc.integer({ min: 300, max: 1_500 }),
  ])('ranges and strips tell of every page once', (pages, total) => {
    const times = shown(...pages);
    const ranges = readRanges(times);
    for (const [i, { from, to }] of ranges.entries()) {
      expect(from).toBeLessThanOrEqual(to);
      expect(from).toBeGreaterThan((ranges[i - 1]?.to ?? -1) + 1);
    }
    const strip = stripOf(times, total, 120);
    expect(strip[0]?.from).toBe(1);
    expect(strip.at(-1)?.to).toBe(total);
    expect(strip.every(({ from }, i) => i === 0 || from === (strip[i - 1]?.to ?? 0) + 1)).toBe(
      true,
    );
    expect(Math.max(0, ...strip.map(({ shownFor }) => shownFor))).toBe(
      Math.max(0, ...times.values()),
    );
  });
});

test.each([
  [{ read: 0, from: 0, to: 0, pages: 5 }, 'nothing'],
  [{ read: 1, from: 4, to: 4, pages: 5 }, 'page 4'],
  [{ read: 3, from: 1, to: 3, pages: 5 }, 'pages 1 to 3'],
  [{ read: 3, from: 1, to: 5, pages: 5 }, '3 of 5 pages'],
  [{ read: 5, from: 1, to: 5, pages: 5 }, 'all'],
])('a row of a list says of %o: %s', (summary, words) => {
  expect(summaryWords(summary)).toBe(words);
});
