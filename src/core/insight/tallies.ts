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

// One sort of array each: where a function meets several, the engine no longer compiles it into the
// loop, and counting takes ten times as long.
function numberAt(column: Uint32Array, row: number): number {
  return column[row] ?? 0;
}

function sumAt(sums: Float64Array, word: number): number {
  return sums[word] ?? 0;
}

function add(to: Float64Array, word: number, n: number): void {
  to[word] = sumAt(to, word) + n;
}

/** For each word of each column, 1 where it passes a filter. */
type Passes = Readonly<Record<Column, Uint8Array>>;
type Columns = Readonly<Record<Column | 'entries', Uint32Array>>;

function isPassing(passes: Uint8Array, column: Uint32Array, row: number): boolean {
  return passes[numberAt(column, row)] === 1;
}

/** Which parts of a filter a row fails: bits of `BIT`. */
function failsOf(passes: Passes, columns: Columns, row: number): number {
  return (
    (isPassing(passes.day, columns.day, row) ? 0 : BIT.day) |
    (isPassing(passes.kind, columns.kind, row) ? 0 : BIT.kind) |
    (isPassing(passes.outcome, columns.outcome, row) ? 0 : BIT.outcome) |
    (isPassing(passes.reason, columns.reason, row) ? 0 : BIT.reason) |
    (isPassing(passes.place, columns.place, row) ? 0 : BIT.place) |
    (isPassing(passes.organisation, columns.organisation, row) ? 0 : BIT.organisation)
  );
}

function daysPassing(days: readonly string[], { from, to }: TallyFilter): Uint8Array {
  const isInside = (day: string): boolean =>
    (from === undefined || day >= from) && (to === undefined || day <= to);
  return Uint8Array.from(days, (day) => (isInside(day) ? 1 : 0));
}

function wordsPassing(
  words: readonly string[],
  chosen: readonly string[] | undefined,
  refused: readonly string[] | undefined,
): Uint8Array {
  const [those, not] = [chosen === undefined ? null : new Set(chosen), new Set(refused)];
  return Uint8Array.from(words, (word) =>
    (those === null || those.has(word)) && !not.has(word) ? 1 : 0,
  );
}

const BIT = { day: 1, kind: 2, outcome: 4, reason: 8, place: 16, organisation: 32 } as const;
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
          numberAt(columns.day, i),
          numberAt(columns.place, i),
          numberAt(columns.organisation, i),
          numberAt(columns.entries, i),
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
      columns.entries[row] = numberAt(columns.entries, row) + tally.entries;
    },
    count: (filter) => {
      const { total, unplaced, sums } = sumUp(filter);
      const kinds = countsOf('kind', sums.kind);
      const days = [...words.day.words].sort();
      const [first, last] = [days.at(0), days.at(-1)];
      return {
        total,
        unplaced,
        recorded: first === undefined || last === undefined ? null : { first, last },
        days: days.flatMap((day) => {
          const word = words.day.find(day);
          const [granted, refused] = [sumAt(sums.granted, word), sumAt(sums.refused, word)];
          return granted + refused === 0 ? [] : [{ day, granted, refused }];
        }),
        kinds: KINDS.flatMap((kind) =>
          kinds
            .filter(({ value }) => value === kind)
            .map(({ entries }) => ({ value: kind, entries })),
        ),
        reasons: countsOf('reason', sums.reason),
        places: countsOf('place', sums.place),
        organisations: countsOf('organisation', sums.organisation),
      };
    },
  };

  function passesOf(filter: TallyFilter): Passes {
    const passing = (name: Counted): Uint8Array =>
      wordsPassing(words[name].words, filter.with?.[name], filter.without?.[name]);
    return {
      day: daysPassing(words.day.words, filter),
      kind: passing('kind'),
      outcome: passing('outcome'),
      reason: passing('reason'),
      place: passing('place'),
      organisation: passing('organisation'),
    };
  }
  /** Adds up every heading in one pass: each under every part of the filter but its own. */
  function sumUp(filter: TallyFilter) {
    const passes = passesOf(filter);
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
    for (let row = 0; row < rows.size; row++) {
      const fails = failsOf(passes, columns, row);
      const n = numberAt(columns.entries, row);
      const kind = numberAt(columns.kind, row);
      const place = numberAt(columns.place, row);
      if (fails === 0) {
        total += n;
        if (place === nowhere) unplaced += placed[kind] === 1 ? n : 0;
      }
      if ((fails & ~BIT.day) === 0)
        add(kind === refused ? sums.refused : sums.granted, numberAt(columns.day, row), n);
      if ((fails & ~BIT.kind) === 0) add(sums.kind, kind, n);
      if ((fails & ~BIT.place) === 0) add(sums.place, place, n);
      if ((fails & ~BIT.organisation) === 0)
        add(sums.organisation, numberAt(columns.organisation, row), n);
      if (kind === refused && (fails & ~(BIT.reason | BIT.kind)) === 0)
        add(sums.reason, numberAt(columns.reason, row), n);
    }
    return { total, unplaced, sums };
  }
  function sumsFor(name: Column): Float64Array {
    return new Float64Array(words[name].words.length);
  }
  /** The words of a column that count for something, the largest first; nothing itself is left out. */
  function countsOf(name: Column, of: Float64Array): Count[] {
    return words[name].words
      .flatMap((value, i) =>
        value === '' || sumAt(of, i) === 0 ? [] : [{ value, entries: sumAt(of, i) }],
      )
      .sort(largestFirst);
  }
}
