import type { Seen } from '@/core/insight/elsewhere';
import type { Chosen, COUNTED_DIMENSIONS } from '@/core/insight/filter';
import { KINDS, type Kind } from '@/core/insight/kinds';
import type { Outcome } from '@/core/ledger/entry';

/** Entries of one sort on one day. Empty text stands for nothing. */
export type Tally = {
  readonly day: string;
  readonly kind: Kind;
  readonly outcome: Outcome;
  readonly reason: string;
  readonly place: string;
  readonly organisation: string;
  readonly entries: number;
};
type Column = Exclude<keyof Tally, 'entries'>;
const COLUMNS = [
  'day',
  'kind',
  'outcome',
  'reason',
  'place',
  'organisation',
] as const satisfies readonly Column[];

type Counted = (typeof COUNTED_DIMENSIONS)[number];
/** What tallies are narrowed to; `from` and `to` are days, both inside. */
export type TallyFilter = {
  readonly with?: Chosen<Counted>;
  readonly without?: Chosen<Counted>;
  readonly from?: string | undefined;
  readonly to?: string | undefined;
};

type Count = { readonly value: string; readonly entries: number };
type DayCount = { readonly day: string; readonly granted: number; readonly refused: number };

/** All that a screen of filters shows, each heading counted under every filter but its own. */
export type Counts = {
  readonly total: number;
  /** First and last day of everything, whatever the filter. */
  readonly recorded: { readonly first: string; readonly last: string } | null;
  readonly days: readonly DayCount[];
  readonly kinds: readonly { readonly value: Kind; readonly entries: number }[];
  readonly reasons: readonly Count[];
  readonly places: readonly Count[];
  readonly organisations: readonly Count[];
  /** Opens, refusals and what was taken, of which no place is known. */
  readonly unplaced: number;
};

type Entries<T> = { readonly value: T; readonly entries: number };

/** One heading of everything, less some and with more; what comes to nothing is left out. */
function headingOf<T>(
  all: readonly Entries<T>[],
  less: readonly Entries<T>[],
  more: readonly Entries<T>[],
): Entries<T>[] {
  const entries = new Map<T, number>();
  const put = (counts: readonly Entries<T>[], sign: 1 | -1): void => {
    for (const { value, entries: n } of counts)
      entries.set(value, (entries.get(value) ?? 0) + sign * n);
  };
  put(all, 1);
  put(less, -1);
  put(more, 1);
  return [...entries].flatMap(([value, n]) => (n > 0 ? [{ value, entries: n }] : []));
}

function daysOf(all: Counts, less: Counts, more: Counts): DayCount[] {
  const sort = (which: 'granted' | 'refused') => {
    const [a, b, c] = [all, less, more].map(({ days }) =>
      days.map((day) => ({ value: day.day, entries: day[which] })),
    );
    return new Map(
      headingOf(a ?? [], b ?? [], c ?? []).map(({ value, entries }) => [value, entries]),
    );
  };
  const [granted, refused] = [sort('granted'), sort('refused')];
  const days = [...new Set([...granted.keys(), ...refused.keys()])].sort();
  return days.map((day) => ({
    day,
    granted: granted.get(day) ?? 0,
    refused: refused.get(day) ?? 0,
  }));
}

/**
 * What is counted of everything, less some of it, and with some more: counting is adding up, so the
 * three need not be put together first.
 */
export function lessAndMore(all: Counts, less: Counts, more: Counts): Counts {
  const heading = (name: 'reasons' | 'places' | 'organisations'): Count[] =>
    headingOf(all[name], less[name], more[name]).sort(largestFirst);
  const kinds = headingOf(all.kinds, less.kinds, more.kinds);
  return {
    total: all.total - less.total + more.total,
    unplaced: all.unplaced - less.unplaced + more.unplaced,
    recorded: all.recorded,
    days: daysOf(all, less, more),
    kinds: KINDS.flatMap((kind) => kinds.filter(({ value }) => value === kind)),
    reasons: heading('reasons'),
    places: heading('places'),
    organisations: heading('organisations'),
  };
}

const largestFirst = (a: Count, b: Count): number =>
  b.entries - a.entries || (a.value < b.value ? -1 : 1);

/** A set of tallies that can be added to and counted. */
export type Tallies = {
  /** Puts a tally in the place of what was counted there. */ readonly put: (tally: Tally) => void;
  /** Adds to what was counted there. */ readonly add: (tally: Tally) => void;
  readonly count: (filter: TallyFilter) => Counts;
  /** Where each organisation was, as far as entries of one kind tell. */ readonly seen: (
    kind: Kind,
  ) => Seen[];
  readonly size: () => number;
};

/** Words as small numbers, so that a million comparisons are of numbers. */
function createWords() {
  const words: string[] = [];
  const numbers = new Map<string, number>();
  return {
    words,
    numberOf: (word: string): number => {
      const known = numbers.get(word);
      if (known !== undefined) return known;
      numbers.set(word, words.length);
      return words.push(word) - 1;
    },
    /** −1 for a word that was never put: it matches nothing. */
    find: (word: string): number => numbers.get(word) ?? -1,
  };
}

const BIT = { days: 1, kind: 2, outcome: 4, reason: 8, place: 16, organisation: 32 } as const;
/** What happened somewhere: whose place is worth knowing. */
const PLACED_KINDS: ReadonlySet<string> = new Set<Kind>(['opened', 'taken', 'refused']);

/**
 * Holds tallies in columns of numbers and counts all headings in one pass: the tallies of a year of a
 * busy ledger, some hundred thousand, take a few milliseconds.
 */
export function createTallies(): Tallies {
  const words = {
    day: createWords(),
    kind: createWords(),
    outcome: createWords(),
    reason: createWords(),
    place: createWords(),
    organisation: createWords(),
  };
  let capacity = 1024;
  const fresh = (): Uint32Array => new Uint32Array(capacity);
  let columns = {
    day: fresh(),
    kind: fresh(),
    outcome: fresh(),
    reason: fresh(),
    place: fresh(),
    organisation: fresh(),
    entries: fresh(),
  };
  const rows = new Map<string, number>();

  const grow = (): void => {
    capacity *= 2;
    columns = Object.fromEntries(
      Object.entries(columns).map(([name, column]) => {
        const larger = fresh();
        larger.set(column);
        return [name, larger];
      }),
    ) as typeof columns;
  };

  const rowOf = (tally: Tally): number => {
    const numbers = COLUMNS.map((name) => words[name].numberOf(tally[name]));
    const key = numbers.join(' ');
    const known = rows.get(key);
    if (known !== undefined) return known;
    const row = rows.size;
    if (row === capacity) grow();
    rows.set(key, row);
    COLUMNS.forEach((name, i) => {
      columns[name][row] = numbers[i] ?? 0;
    });
    return row;
  };

  return {
    size: () => rows.size,
    seen: (kind) => {
      const wanted = words.kind.find(kind);
      const found = new Map<
        number,
        { first: number; entries: number; organisation: number; place: number }
      >();
      for (let i = 0; i < rows.size; i++) {
        if (columns.kind[i] !== wanted) continue;
        const [d, p, o, n] = [
          columns.day[i] ?? 0,
          columns.place[i] ?? 0,
          columns.organisation[i] ?? 0,
          columns.entries[i] ?? 0,
        ];
        const key = o * words.place.words.length + p;
        const known = found.get(key);
        if (known === undefined)
          found.set(key, { first: d, entries: n, organisation: o, place: p });
        else {
          known.entries += n;
          if ((words.day.words[d] ?? '') < (words.day.words[known.first] ?? '')) known.first = d;
        }
      }
      return [...found.values()].map(({ first, entries, organisation, place }) => ({
        organisation: words.organisation.words[organisation] ?? '',
        place: words.place.words[place] ?? '',
        first: words.day.words[first] ?? '',
        entries,
      }));
    },
    // The row comes first: making it may move the columns to where there is more room.
    put: (tally) => {
      const row = rowOf(tally);
      columns.entries[row] = tally.entries;
    },
    add: (tally) => {
      const row = rowOf(tally);
      columns.entries[row] = (columns.entries[row] ?? 0) + tally.entries;
    },
    count: (filter) => {
      const { day, kind, outcome, reason, place, organisation, entries } = columns;
      const passes = {
        kind: passing('kind', filter),
        outcome: passing('outcome', filter),
        reason: passing('reason', filter),
        place: passing('place', filter),
        organisation: passing('organisation', filter),
      };
      const inside = Uint8Array.from(words.day.words, (each) =>
        (filter.from === undefined || each >= filter.from) &&
        (filter.to === undefined || each <= filter.to)
          ? 1
          : 0,
      );
      const refused = words.kind.find('refused');
      const placed = Uint8Array.from(words.kind.words, (each) => (PLACED_KINDS.has(each) ? 1 : 0));
      const nowhere = words.place.find('');
      const sums = {
        granted: sumsFor('day'),
        refused: sumsFor('day'),
        kind: sumsFor('kind'),
        reason: sumsFor('reason'),
        place: sumsFor('place'),
        organisation: sumsFor('organisation'),
      };
      let total = 0;
      let unplaced = 0;
      for (let i = 0; i < rows.size; i++) {
        const [d, k, r, p, o, n] = [
          day[i] ?? 0,
          kind[i] ?? 0,
          reason[i] ?? 0,
          place[i] ?? 0,
          organisation[i] ?? 0,
          entries[i] ?? 0,
        ];
        const fails =
          (inside[d] === 1 ? 0 : BIT.days) |
          (passes.kind[k] === 1 ? 0 : BIT.kind) |
          (passes.outcome[outcome[i] ?? 0] === 1 ? 0 : BIT.outcome) |
          (passes.reason[r] === 1 ? 0 : BIT.reason) |
          (passes.place[p] === 1 ? 0 : BIT.place) |
          (passes.organisation[o] === 1 ? 0 : BIT.organisation);
        if (fails === 0) {
          total += n;
          if (p === nowhere && placed[k] === 1) unplaced += n;
        }
        if ((fails & ~BIT.days) === 0) add(k === refused ? sums.refused : sums.granted, d, n);
        if ((fails & ~BIT.kind) === 0) add(sums.kind, k, n);
        if ((fails & ~BIT.place) === 0) add(sums.place, p, n);
        if ((fails & ~BIT.organisation) === 0) add(sums.organisation, o, n);
        if (k === refused && (fails & ~(BIT.reason | BIT.kind)) === 0) add(sums.reason, r, n);
      }
      const kinds = countsOf('kind', sums.kind);
      const ordered = [...words.day.words].sort();
      const [first, last] = [ordered.at(0), ordered.at(-1)];
      return {
        total,
        unplaced,
        recorded: first === undefined || last === undefined ? null : { first, last },
        days: ordered.flatMap((each) => {
          const at = words.day.find(each);
          const [granted, no] = [sums.granted[at] ?? 0, sums.refused[at] ?? 0];
          return granted + no === 0 ? [] : [{ day: each, granted, refused: no }];
        }),
        kinds: KINDS.flatMap((each) =>
          kinds
            .filter(({ value }) => value === each)
            .map(({ entries: n }) => ({ value: each, entries: n })),
        ),
        reasons: countsOf('reason', sums.reason),
        places: countsOf('place', sums.place),
        organisations: countsOf('organisation', sums.organisation),
      };
    },
  };

  /** For each word of a column, 1 where it passes. */
  function passing(name: Counted, { with: wanted = {}, without = {} }: TallyFilter): Uint8Array {
    const [chosen, refused] = [wanted[name], new Set(without[name])];
    const those = chosen === undefined ? null : new Set(chosen);
    return Uint8Array.from(words[name].words, (word) =>
      (those === null || those.has(word)) && !refused.has(word) ? 1 : 0,
    );
  }
  function sumsFor(name: Column): Float64Array {
    return new Float64Array(words[name].words.length);
  }
  /** The words of a column that count for something, the largest first; nothing itself is left out. */
  function countsOf(name: Column, of: Float64Array): Count[] {
    return words[name].words
      .flatMap((value, i) => (value === '' || of[i] === 0 ? [] : [{ value, entries: of[i] ?? 0 }]))
      .sort(largestFirst);
  }
}

function add(to: Float64Array, at: number, n: number): void {
  to[at] = (to[at] ?? 0) + n;
}
