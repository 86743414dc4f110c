import { describe, expect, test } from 'vitest';
import { fc, test as prop } from '@fast-check/vitest';
import { createTallies, type Tally, type TallyFilter } from '@/core/insight/tallies';
import { COUNTED_DIMENSIONS } from '@/core/insight/filter';
import { KINDS } from '@/core/insight/kinds';
import { OUTCOMES } from '@/core/ledger/entry';

const tally = fc.record<Tally>({
  day: fc.constantFrom('2026-01-01', '2026-01-02', '2026-03-09'),
  kind: fc.constantFrom(...KINDS),
  outcome: fc.constantFrom(...OUTCOMES),
  reason: fc.constantFrom('', 'expired', 'revoked'),
  place: fc.constantFrom('', 'Tarvik', 'Kelder'),
  organisation: fc.constantFrom('', 'Yard', 'Works'),
  entries: fc.integer({ min: 1, max: 1000 }),
});
const some = <T>(...values: readonly [T, ...T[]]) =>
  fc.option(fc.subarray([...values], { minLength: 1 }), { nil: undefined });
const chosen = fc
  .record({
    kind: some(...KINDS),
    outcome: some(...OUTCOMES),
    reason: some('expired', 'never'),
    place: some('Tarvik', 'Atlantis'),
    organisation: some('Yard', 'Works'),
  })
  .map((each) =>
    Object.fromEntries(Object.entries(each).filter(([, values]) => values !== undefined)),
  );
const filter: fc.Arbitrary<TallyFilter> = fc.record({
  with: chosen,
  without: fc.oneof(fc.constant({}), chosen),
  from: fc.option(fc.constantFrom('2026-01-02', '2027-01-01'), { nil: undefined }),
  to: fc.option(fc.constantFrom('2026-01-01', '2026-03-09'), { nil: undefined }),
});

/** The last tally of each sort: what putting one after another leaves. */
function settled(tallies: readonly Tally[]): Tally[] {
  return [
    ...new Map(tallies.map((each) => [JSON.stringify({ ...each, entries: 0 }), each])).values(),
  ];
}

type Counted = (typeof COUNTED_DIMENSIONS)[number];

/** Whether a tally passes, whatever it has of the headings that are left open. */
function passes(
  each: Tally,
  { from, to, with: wanted = {}, without = {} }: TallyFilter,
  ...open: readonly (Counted | 'days')[]
): boolean {
  const inSpan =
    open.includes('days') ||
    ((from === undefined || each.day >= from) && (to === undefined || each.day <= to));
  return (
    inSpan &&
    COUNTED_DIMENSIONS.every(
      (name) =>
        open.includes(name) ||
        (wanted[name]?.includes(each[name]) !== false &&
          without[name]?.includes(each[name]) !== true),
    )
  );
}
const sum = (tallies: readonly Tally[]): number =>
  tallies.reduce((total, each) => total + each.entries, 0);

describe('tallies', () => {
  prop.prop([fc.array(tally, { maxLength: 60 }), filter])(
    'count as plain filtering does, each heading under all filters but its own',
    (tallies, wanted) => {
      const held = createTallies();
      for (const each of tallies) held.put(each);
      const all = settled(tallies);
      const counts = held.count(wanted);
      expect(held.size()).toBe(all.length);
      expect(counts.total).toBe(sum(all.filter((each) => passes(each, wanted))));
      for (const { value, entries } of counts.kinds)
        expect(entries).toBe(
          sum(all.filter((each) => each.kind === value && passes(each, wanted, 'kind'))),
        );
      for (const { value, entries } of counts.places)
        expect(entries).toBe(
          sum(all.filter((each) => each.place === value && passes(each, wanted, 'place'))),
        );
      for (const { value, entries } of counts.organisations)
        expect(entries).toBe(
          sum(
            all.filter(
              (each) => each.organisation === value && passes(each, wanted, 'organisation'),
            ),
          ),
        );
      for (const { value, entries } of counts.reasons)
        expect(entries).toBe(
          sum(
            all.filter(
              (each) =>
                each.reason === value &&
                each.kind === 'refused' &&
                passes(each, wanted, 'reason', 'kind'),
            ),
          ),
        );
      const days = all.filter((each) => passes(each, wanted, 'days'));
      expect(counts.days.reduce((total, each) => total + each.granted + each.refused, 0)).toBe(
        sum(days),
      );
      expect(counts.days.reduce((total, each) => total + each.refused, 0)).toBe(
        sum(days.filter((each) => each.kind === 'refused')),
      );
      expect(counts.unplaced).toBe(
        sum(
          all.filter(
            (each) =>
              passes(each, wanted) &&
              each.place === '' &&
              ['opened', 'taken', 'refused'].includes(each.kind),
          ),
        ),
      );
    },
  );

  test('grow beyond their first room, and say from when to when they reach', () => {
    const held = createTallies();
    for (let i = 0; i < 3_000; i++)
      held.put({
        day: `2026-01-${String(1 + (i % 28)).padStart(2, '0')}`,
        kind: 'opened',
        outcome: 'granted',
        reason: '',
        place: `place ${String(i)}`,
        organisation: '',
        entries: 1,
      });
    expect(held.count({})).toMatchObject({
      total: 3_000,
      recorded: { first: '2026-01-01', last: '2026-01-28' },
    });
    expect(createTallies().count({})).toEqual({
      total: 0,
      recorded: null,
      days: [],
      kinds: [],
      reasons: [],
      places: [],
      organisations: [],
      unplaced: 0,
    });
  });
});
