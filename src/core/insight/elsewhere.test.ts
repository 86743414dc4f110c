import { describe, expect, test } from 'vitest';
import { seenElsewhere, type Seen } from '@/core/insight/elsewhere';
import { createTallies } from '@/core/insight/tallies';

const seen = (organisation: string, place: string, first: string, entries = 1): Seen => ({
  organisation,
  place,
  first,
  entries,
});

describe('an organisation seen elsewhere', () => {
  test('is one that had its places before, and those are named, the most usual first', () => {
    const all = [
      seen('Yard', 'Tarvik', '2026-01-01', 3),
      seen('Yard', 'Kelder', '2026-02-01', 9),
      seen('Yard', 'Costa Brume', '2026-03-02', 2),
      seen('Works', 'Kelder', '2026-01-01'),
    ];
    expect(seenElsewhere(all, '2026-03-01')).toEqual([
      {
        organisation: 'Yard',
        place: 'Costa Brume',
        opens: 2,
        since: '2026-03-02',
        usual: ['Kelder', 'Tarvik'],
      },
    ]);
  });

  test('is not one that is new altogether, nor a place or organisation that is not known', () => {
    expect(
      seenElsewhere(
        [
          seen('New', 'Tarvik', '2026-03-02'),
          seen('', 'Tarvik', '2026-01-01'),
          seen('', 'Kelder', '2026-03-02'),
          seen('Yard', '', '2026-03-02'),
          seen('Yard', 'Kelder', '2026-01-01'),
        ],
        '2026-03-01',
      ),
    ).toEqual([]);
  });

  test('comes newest first, then by how often', () => {
    const all = ['A', 'B', 'C'].flatMap((name, i) => [
      seen(name, 'Kelder', '2026-01-01'),
      seen(name, 'Tarvik', i === 0 ? '2026-03-02' : '2026-03-05', i + 1),
    ]);
    expect(seenElsewhere(all, '2026-03-01').map(({ organisation }) => organisation)).toEqual([
      'C',
      'B',
      'A',
    ]);
  });

  test('is told from the same tallies that the ledger is counted by', () => {
    const tallies = createTallies();
    const put = (
      day: string,
      place: string,
      entries: number,
      kind: 'opened' | 'refused' = 'opened',
    ) => {
      tallies.put({
        day,
        kind,
        outcome: 'granted',
        reason: '',
        place,
        organisation: 'Yard',
        entries,
      });
    };
    put('2026-03-04', 'Tarvik', 2);
    put('2026-03-02', 'Tarvik', 1);
    put('2026-01-02', 'Kelder', 5);
    put('2026-03-03', 'Ferrow', 7, 'refused');
    expect(tallies.seen('opened')).toEqual([
      { organisation: 'Yard', place: 'Tarvik', first: '2026-03-02', entries: 3 },
      { organisation: 'Yard', place: 'Kelder', first: '2026-01-02', entries: 5 },
    ]);
    expect(tallies.seen('read')).toEqual([]);
  });
});
