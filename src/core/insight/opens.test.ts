import { describe, expect, it } from 'vitest';
import { opensByPerson, type PairCount } from '@/core/insight/opens';

const pair = (
  recipient: string,
  document: string,
  opens: number,
  over: Partial<PairCount> = {},
): PairCount => ({
  recipient,
  document,
  opens,
  refused: 0,
  first: opens > 0 ? '2026-03-02' : null,
  last: opens > 0 ? '2026-03-05' : null,
  ...over,
});

describe('who opened how often', () => {
  it('adds up each person, the busiest first, and those who never did last', () => {
    const { people, totals } = opensByPerson(
      [
        pair('a', 'x', 1),
        pair('b', 'x', 3),
        pair('b', 'y', 2, { first: '2026-03-01', last: '2026-03-09' }),
        pair('c', 'x', 0, { refused: 2 }),
      ],
      [
        { recipient: 'd', document: 'x' },
        { recipient: 'a', document: 'x' },
        { recipient: 'a', document: 'y' },
      ],
      false,
    );
    expect(
      people.map(({ recipient, opens, refused, first, last, cells }) => [
        recipient,
        opens,
        refused,
        first,
        last,
        cells.map(({ document }) => document),
      ]),
    ).toEqual([
      ['b', 5, 0, '2026-03-01', '2026-03-09', ['x', 'y']],
      ['a', 1, 0, '2026-03-02', '2026-03-05', ['x', 'y']],
      ['c', 0, 2, null, null, ['x']],
      ['d', 0, 0, null, null, ['x']],
    ]);
    // One person can be among those who opened and those who were refused; each count stands by itself.
    expect(totals).toEqual({ opens: 6, openedBy: 2, refused: 2, refusedTo: 1, neverOpened: 2 });
  });

  it('tells only who left something unopened, where that is asked', () => {
    expect(
      opensByPerson(
        [pair('a', 'x', 1), pair('b', 'x', 1)],
        [{ recipient: 'a', document: 'y' }],
        true,
      ).people.map(({ recipient }) => recipient),
    ).toEqual(['a']);
  });
});
