import 'server-only';
import { and, gte, inArray, notInArray, or, sql, type SQL } from 'drizzle-orm';
import type { Seen } from '@/core/insight/elsewhere';
import {
  COUNTED_DIMENSIONS,
  dayOfText,
  type Chosen,
  type EntryFilter,
} from '@/core/insight/filter';
import { kindOf, type Kind } from '@/core/insight/kinds';
import type { Action } from '@/core/ledger/entry';
import {
  createHeaps,
  lessAndMore,
  type Counts,
  type Heap,
  type HeapFilter,
  type Heaps,
} from '@/core/insight/heaps';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerDays, ledgerEntries, ledgerPairs } from '@/server/db/schema';
import { conditionsOf } from '@/server/repositories/ledger/ledger-conditions';
import {
  isWhose,
  ownDispatches,
  ownDocuments,
  type Whose,
} from '@/server/repositories/ledger/own-repository';

/** Counts entries by the heaps they were put on as they were written. */
export type LedgerCounts = {
  readonly count: (
    filter: EntryFilter,
    /** Days that are only in part inside. */ edges?: readonly Edge[],
  ) => Promise<Counts>;
  readonly seen: (kind: Kind, whose?: Whose | null) => Promise<Seen[]>;
};

/** A heap as SQLite hands it over: one text for many rows costs a tenth of rows one by one. */
type HeapTuple = readonly [
  Heap['day'],
  Heap['kind'],
  Heap['outcome'],
  string,
  string,
  string,
  number,
  number,
];

function putAll(heaps: Heaps, tuples: readonly HeapTuple[]): number {
  let last = 0;
  for (const [day, kind, outcome, reason, place, organisation, entries, sequence] of tuples) {
    heaps.put({ day, kind, outcome, reason, place, organisation, entries });
    last = Math.max(last, sequence);
  }
  return last;
}

type DayOf = (moment: number) => string;

/** Entries as heaps of one each: for the few of which no heap is kept. */
async function heapsOf(
  db: Reading,
  where: readonly (SQL | undefined)[],
  dayOf: DayOf,
): Promise<Heap[]> {
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(action, outcome, coalesce(reason, ''), occurred_at,
    coalesce((SELECT value FROM ledger_personal p WHERE p.sequence = ledger_entries.sequence
    AND p.field = 'place'), ''), coalesce((SELECT organisation FROM recipients r
    WHERE r.id = recipient_id), ''))) AS found
    FROM ledger_entries WHERE ${and(...where)}`);
  const heaps = new Map<string, Heap>();
  for (const [action, outcome, reason, occurredAt, place, organisation] of JSON.parse(
    got?.found ?? '[]',
  ) as [Action, Heap['outcome'], string, string, string, string][]) {
    const heap = {
      day: dayOf(Date.parse(occurredAt)),
      kind: kindOf(action, outcome),
      outcome,
      reason,
      place: place.split(',')[0] ?? '',
      organisation,
    };
    const key = Object.values(heap).join('\n');
    heaps.set(key, { ...heap, entries: (heaps.get(key)?.entries ?? 0) + 1 });
  }
  return [...heaps.values()];
}

const PAIRED = {
  document: ledgerPairs.documentId,
  recipient: ledgerPairs.recipientId,
  dispatch: ledgerPairs.dispatchId,
} as const;

const among = (values: readonly string[]): SQL =>
  sql`(SELECT value FROM json_each(${JSON.stringify(values)}))`;

/** Heaps that are kept, but for some days. */
async function keptHeaps(
  db: Reading,
  table: typeof ledgerDays | typeof ledgerPairs,
  where: readonly (SQL | undefined)[],
  outside: readonly string[],
): Promise<Heap[]> {
  const within = outside.length === 0 ? undefined : notInArray(table.day, [...outside]);
  const [got] = await db.all<{ heaps: string }>(sql`
    SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation,
    entries)) AS heaps
    FROM (SELECT day, kind, outcome, reason, place, organisation, sum(entries) AS entries
    FROM ${table} WHERE ${and(sql`1`, ...where, within)}
    GROUP BY day, kind, outcome, reason, place, organisation)`);
  return (JSON.parse(got?.heaps ?? '[]') as HeapTuple[]).map(
    ([day, kind, outcome, reason, place, organisation, entries]) => ({
      day,
      kind,
      outcome,
      reason,
      place,
      organisation,
      entries,
    }),
  );
}

const NAMES = Object.keys(PAIRED) as (keyof typeof PAIRED)[];

function pairsWith(chosen: Chosen): SQL[] {
  return NAMES.flatMap((name) =>
    chosen[name] === undefined ? [] : [sql`${PAIRED[name]} IN ${among(chosen[name])}`],
  );
}

/**
 * What is wanted of a filter, from the heaps that are kept by document, recipient and dispatch:
 * there, what is refused is still among it.
 */
async function wantedHeaps(
  db: Reading,
  filter: EntryFilter,
  outside: readonly string[],
  dayOf: DayOf,
): Promise<Heap[]> {
  const { with: wanted = {}, own } = filter;
  const [kept, byLinks, acts] = await Promise.all([
    keptHeaps(db, ledgerPairs, [...pairsWith(wanted), ...mine(own)], outside),
    byLinksOf(db, wanted.recipient ?? [], filter, dayOf),
    actsOf(db, filter, dayOf),
  ]);
  return [...kept, ...[...byLinks, ...acts].filter(notOn(outside))];
}

/** What is refused of what is wanted. */
async function refusedHeaps(
  db: Reading,
  filter: EntryFilter,
  outside: readonly string[],
  dayOf: DayOf,
): Promise<Heap[]> {
  const { with: wanted = {}, without = {}, own } = filter;
  const refused = pairsWith(without);
  if (refused.length === 0) return [];
  const [kept, byLinks] = await Promise.all([
    keptHeaps(db, ledgerPairs, [...pairsWith(wanted), ...mine(own), or(...refused)], outside),
    byLinksOf(db, without.recipient ?? [], filter, dayOf),
  ]);
  return [...kept, ...byLinks.filter(notOn(outside))];
}

function mine(own: EntryFilter['own']): SQL[] {
  return own === undefined
    ? []
    : [
        sql`(${ledgerPairs.documentId} IN ${ownDocuments(own)} OR ${ledgerPairs.dispatchId} IN ${ownDispatches(own)})`,
      ];
}

const notOn =
  (outside: readonly string[]) =>
  (heap: Heap): boolean =>
    !outside.includes(heap.day);

/**
 * What others did by the link of some people: it belongs to what is recorded of those, and is not
 * among the heaps by person. They are few.
 */
async function byLinksOf(
  db: Reading,
  people: readonly string[],
  { with: wanted = {}, without = {}, own }: EntryFilter,
  dayOf: DayOf,
): Promise<Heap[]> {
  if (people.length === 0) return [];
  const { recipient: _with, ...others } = wanted;
  const { recipient: _without, ...notOthers } = without;
  const whose = JSON.stringify(people);
  const byOthers = sql`${ledgerEntries.linkOf} IN (SELECT value FROM json_each(${whose}))
    AND coalesce(${ledgerEntries.recipientId} IN (SELECT value FROM json_each(${whose})), 0) = 0`;
  return heapsOf(
    db,
    [byOthers, ...conditionsOf(withoutCounted({ with: others, without: notOthers, own }), {})],
    dayOf,
  );
}

/** What somebody on the staff did that is about no document and no dispatch of theirs. */
async function actsOf(db: Reading, { own, ...filter }: EntryFilter, dayOf: DayOf): Promise<Heap[]> {
  if (own === undefined) return [];
  const elsewhere = sql`${ledgerEntries.actorId} = ${own}
    AND coalesce(${ledgerEntries.documentId} IN ${ownDocuments(own)}, 0) = 0
    AND coalesce(${ledgerEntries.dispatchId} IN ${ownDispatches(own)}, 0) = 0`;
  return heapsOf(db, [elsewhere, ...conditionsOf(withoutCounted(filter), {})], dayOf);
}

/** The filter but for what heaps tell apart by themselves. */
function withoutCounted({ with: wanted = {}, without = {}, own }: EntryFilter): EntryFilter {
  const rest = (chosen: Chosen): Chosen =>
    Object.fromEntries(
      Object.entries(chosen).filter(([name]) => !COUNTED_DIMENSIONS.some((each) => each === name)),
    );
  return { with: rest(wanted), without: rest(without), own };
}

/**
 * Whether no heap is kept by what a filter names, or not by both of what it wants and refuses: what
 * others did by a link is about two people.
 */
function isFine({ with: wanted = {}, without = {} }: EntryFilter): boolean {
  const named = [wanted, without].some(
    ({ actor, device, version }) =>
      actor !== undefined || device !== undefined || version !== undefined,
  );
  return named || (wanted.recipient !== undefined && Object.keys(without).length > 0);
}

/** Where organisations were, as far as entries about somebody's documents and dispatches tell. */
async function seenOf(db: Reading, kind: Kind, whose: Whose): Promise<Seen[]> {
  return db.all(
    sql`SELECT organisation, place, min(day) AS first, sum(entries) AS entries FROM ledger_pairs
      WHERE kind = ${kind} AND ${isWhose(whose, ledgerPairs.documentId, ledgerPairs.dispatchId) ?? sql`1`}
      GROUP BY organisation, place`,
  );
}

/** A day at an end of the filter that is only in part inside. */
export type Edge = {
  readonly day: string;
  readonly begins?: string | undefined;
  readonly ends?: string | undefined;
};

/**
 * Holds the heaps of the whole ledger in memory. Each question first reads those that were touched
 * since the last one, so that several processes on one database all answer truly. Where a document,
 * a person or a dispatch is named, its own few heaps are read instead; where somebody's acts, a
 * device, a version or a time of the day is asked about, of which no heap is kept, the entries
 * themselves.
 */
export function createLedgerCounts(db: Reading, dayOf: DayOf): LedgerCounts {
  const held = createHeaps();
  let seen = -1;
  const refresh = async (): Promise<void> => {
    const [got] = await db.all<{ heaps: string }>(
      sql`SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation,
        entries, last)) AS heaps FROM ledger_days WHERE last > ${seen}`,
    );
    const tuples = JSON.parse(got?.heaps ?? '[]') as HeapTuple[];
    if (tuples.length > 0) seen = Math.max(seen, putAll(held, tuples));
  };
  const edgeHeaps = async (filter: EntryFilter, edges: readonly Edge[]): Promise<Heap[]> =>
    (await Promise.all(edges.map((edge) => heapsOf(db, conditionsOf(filter, edge), dayOf)))).flat();
  const counted = (heaps: readonly Heap[], narrow: HeapFilter): Counts => {
    const own = createHeaps();
    for (const heap of heaps) own.add(heap);
    return own.count(narrow);
  };
  /** Everything, but for what is refused and the days at the edges, of which only a part is inside. */
  const countWide = async (
    rest: EntryFilter,
    edges: readonly Edge[],
    narrow: HeapFilter,
  ): Promise<Counts> => {
    const days = edges.map(({ day }) => day);
    const [less, whole, more] = await Promise.all([
      refusedHeaps(db, rest, days, dayOf),
      days.length === 0 ? [] : keptHeaps(db, ledgerDays, [inArray(ledgerDays.day, days)], []),
      edgeHeaps(rest, edges),
      refresh(),
    ]);
    return lessAndMore(
      held.count(narrow),
      counted([...less, ...whole], narrow),
      counted(more, narrow),
    );
  };
  const countNarrow = async (
    rest: EntryFilter,
    edges: readonly Edge[],
    narrow: HeapFilter,
  ): Promise<Counts> => {
    const days = edges.map(({ day }) => day);
    if (isFine(rest)) {
      const [all, more] = await Promise.all([
        heapsOf(db, conditionsOf(rest, {}), dayOf),
        edgeHeaps(rest, edges),
      ]);
      return counted([...all.filter(notOn(days)), ...more], narrow);
    }
    const [wanted, less, more] = await Promise.all([
      wantedHeaps(db, rest, days, dayOf),
      refusedHeaps(db, rest, days, dayOf),
      edgeHeaps(rest, edges),
    ]);
    return lessAndMore(counted(wanted, narrow), counted(less, narrow), counted(more, narrow));
  };
  return {
    seen: async (kind, whose = null) => {
      if (whose !== null) return seenOf(db, kind, whose);
      await refresh();
      return held.seen(kind);
    },
    count: async (filter, edges = []) => {
      const narrow = {
        with: filter.with ?? {},
        without: filter.without ?? {},
        from: filter.from === undefined ? undefined : dayOfText(filter.from),
        to: filter.to === undefined ? undefined : dayOfText(filter.to),
      };
      const rest = withoutCounted(filter);
      const [wanted, refused] = [
        Object.keys(rest.with ?? {}).length,
        Object.keys(rest.without ?? {}).length,
      ];
      if (wanted === 0 && refused === 0 && filter.own === undefined && edges.length === 0) {
        await refresh();
        return held.count(narrow);
      }
      const isWide = wanted === 0 && filter.own === undefined && !isFine(rest);
      return isWide ? countWide(rest, edges, narrow) : countNarrow(rest, edges, narrow);
    },
  };
}

/** How many entries the counts stand for in all. */
export async function countedEntries(db: Reading): Promise<number> {
  const [row] = await db
    .select({ entries: sql<number>`coalesce(sum(${ledgerDays.entries}), 0)` })
    .from(ledgerDays);
  return row?.entries ?? 0;
}

export async function emptyDays(tx: Transaction): Promise<void> {
  await tx.delete(ledgerDays).where(gte(ledgerDays.entries, 0));
  await tx.delete(ledgerPairs).where(gte(ledgerPairs.entries, 0));
}
