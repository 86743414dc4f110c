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
  createTallies,
  lessAndMore,
  type Counts,
  type Tally,
  type TallyFilter,
  type Tallies,
} from '@/core/insight/tallies';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerDays, ledgerEntries, ledgerPairs } from '@/server/db/schema/ledger';
import { conditionsOf } from '@/server/repositories/ledger/ledger-conditions';
import {
  isWhose,
  ownDispatches,
  ownDocuments,
  type Whose,
} from '@/server/repositories/ledger/own-repository';

/** Counts entries by the tallies they were put on as they were written. */
export type LedgerCounts = {
  readonly count: (
    filter: EntryFilter,
    /** Days that are only in part inside. */ edges?: readonly Edge[],
  ) => Promise<Counts>;
  readonly seen: (kind: Kind, whose?: Whose | null) => Promise<Seen[]>;
};

/** A tally as SQLite hands it over: one text for many rows costs a tenth of rows one by one. */
type TallyTuple = readonly [
  Tally['day'],
  Tally['kind'],
  Tally['outcome'],
  string,
  string,
  string,
  number,
  number,
];

function putAll(tallies: Tallies, tuples: readonly TallyTuple[]): number {
  let last = 0;
  for (const [day, kind, outcome, reason, place, organisation, entries, sequence] of tuples) {
    tallies.put({ day, kind, outcome, reason, place, organisation, entries });
    last = Math.max(last, sequence);
  }
  return last;
}

type DayOf = (moment: number) => string;

/** Entries as tallies of one each: for the few of which no tally is kept. */
async function talliesOf(
  db: Reading,
  where: readonly (SQL | undefined)[],
  dayOf: DayOf,
): Promise<Tally[]> {
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(action, outcome, coalesce(reason, ''), occurred_at,
    coalesce((SELECT value FROM ledger_personal p WHERE p.sequence = ledger_entries.sequence
    AND p.field = 'place'), ''), coalesce((SELECT organisation FROM recipients r
    WHERE r.id = recipient_id), ''))) AS found
    FROM ledger_entries WHERE ${and(...where)}`);
  const tallies = new Map<string, Tally>();
  for (const [action, outcome, reason, occurredAt, place, organisation] of JSON.parse(
    got?.found ?? '[]',
  ) as [Action, Tally['outcome'], string, string, string, string][]) {
    const tally = {
      day: dayOf(Date.parse(occurredAt)),
      kind: kindOf(action, outcome),
      outcome,
      reason,
      place: place.split(',')[0] ?? '',
      organisation,
    };
    const key = Object.values(tally).join('\n');
    tallies.set(key, { ...tally, entries: (tallies.get(key)?.entries ?? 0) + 1 });
  }
  return [...tallies.values()];
}

const PAIRED = {
  document: ledgerPairs.documentId,
  recipient: ledgerPairs.recipientId,
  dispatch: ledgerPairs.dispatchId,
} as const;

const among = (values: readonly string[]): SQL =>
  sql`(SELECT value FROM json_each(${JSON.stringify(values)}))`;

/** Tallies that are kept, but for some days. */
async function keptTallies(
  db: Reading,
  table: typeof ledgerDays | typeof ledgerPairs,
  where: readonly (SQL | undefined)[],
  outside: readonly string[],
): Promise<Tally[]> {
  const within = outside.length === 0 ? undefined : notInArray(table.day, [...outside]);
  const [got] = await db.all<{ tallies: string }>(sql`
    SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation,
    entries)) AS tallies
    FROM (SELECT day, kind, outcome, reason, place, organisation, sum(entries) AS entries
    FROM ${table} WHERE ${and(sql`1`, ...where, within)}
    GROUP BY day, kind, outcome, reason, place, organisation)`);
  return (JSON.parse(got?.tallies ?? '[]') as TallyTuple[]).map(
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
 * What is wanted of a filter, from the tallies that are kept by document, recipient and dispatch:
 * there, what is refused is still among it.
 */
async function wantedTallies(
  db: Reading,
  filter: EntryFilter,
  outside: readonly string[],
  dayOf: DayOf,
): Promise<Tally[]> {
  const { with: wanted = {}, own } = filter;
  const [kept, byLinks, acts] = await Promise.all([
    keptTallies(db, ledgerPairs, [...pairsWith(wanted), ...mine(own)], outside),
    byLinksOf(db, wanted.recipient ?? [], filter, dayOf),
    actsOf(db, filter, dayOf),
  ]);
  return [...kept, ...[...byLinks, ...acts].filter(notOn(outside))];
}

/** What is refused of what is wanted. */
async function refusedTallies(
  db: Reading,
  filter: EntryFilter,
  outside: readonly string[],
  dayOf: DayOf,
): Promise<Tally[]> {
  const { with: wanted = {}, without = {}, own } = filter;
  const refused = pairsWith(without);
  if (refused.length === 0) return [];
  const [kept, byLinks] = await Promise.all([
    keptTallies(db, ledgerPairs, [...pairsWith(wanted), ...mine(own), or(...refused)], outside),
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
  (tally: Tally): boolean =>
    !outside.includes(tally.day);

/**
 * What others did by the link of some people: it belongs to what is recorded of those, and is not
 * among the tallies by person. They are few.
 */
async function byLinksOf(
  db: Reading,
  people: readonly string[],
  { with: wanted = {}, without = {}, own }: EntryFilter,
  dayOf: DayOf,
): Promise<Tally[]> {
  if (people.length === 0) return [];
  const { recipient: _with, ...others } = wanted;
  const { recipient: _without, ...notOthers } = without;
  const whose = JSON.stringify(people);
  const byOthers = sql`${ledgerEntries.linkOf} IN (SELECT value FROM json_each(${whose}))
    AND coalesce(${ledgerEntries.recipientId} IN (SELECT value FROM json_each(${whose})), 0) = 0`;
  return talliesOf(
    db,
    [byOthers, ...conditionsOf(withoutCounted({ with: others, without: notOthers, own }), {})],
    dayOf,
  );
}

/** What somebody on the staff did that is about no document and no dispatch of theirs. */
async function actsOf(
  db: Reading,
  { own, ...filter }: EntryFilter,
  dayOf: DayOf,
): Promise<Tally[]> {
  if (own === undefined) return [];
  const elsewhere = sql`${ledgerEntries.actorId} = ${own}
    AND coalesce(${ledgerEntries.documentId} IN ${ownDocuments(own)}, 0) = 0
    AND coalesce(${ledgerEntries.dispatchId} IN ${ownDispatches(own)}, 0) = 0`;
  return talliesOf(db, [elsewhere, ...conditionsOf(withoutCounted(filter), {})], dayOf);
}

/** The filter but for what tallies tell apart by themselves. */
function withoutCounted({ with: wanted = {}, without = {}, own }: EntryFilter): EntryFilter {
  const rest = (chosen: Chosen): Chosen =>
    Object.fromEntries(
      Object.entries(chosen).filter(([name]) => !COUNTED_DIMENSIONS.some((each) => each === name)),
    );
  return { with: rest(wanted), without: rest(without), own };
}

/**
 * Whether no tally is kept by what a filter names, or not by both of what it wants and refuses: what
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
 * Holds the tallies of the whole ledger in memory. Each question first reads those that were touched
 * since the last one, so that several processes on one database all answer truly. Where a document,
 * a person or a dispatch is named, its own few tallies are read instead; where somebody's acts, a
 * device, a version or a time of the day is asked about, of which no tally is kept, the entries
 * themselves.
 */
export function createLedgerCounts(db: Reading, dayOf: DayOf): LedgerCounts {
  const held = createTallies();
  let seen = -1;
  const refresh = async (): Promise<void> => {
    const [got] = await db.all<{ tallies: string }>(
      sql`SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation,
        entries, last)) AS tallies FROM ledger_days WHERE last > ${seen}`,
    );
    const tuples = JSON.parse(got?.tallies ?? '[]') as TallyTuple[];
    if (tuples.length > 0) seen = Math.max(seen, putAll(held, tuples));
  };
  const edgeTallies = async (filter: EntryFilter, edges: readonly Edge[]): Promise<Tally[]> =>
    (
      await Promise.all(edges.map((edge) => talliesOf(db, conditionsOf(filter, edge), dayOf)))
    ).flat();
  const counted = (tallies: readonly Tally[], narrow: TallyFilter): Counts => {
    const own = createTallies();
    for (const tally of tallies) own.add(tally);
    return own.count(narrow);
  };
  /** Everything, but for what is refused and the days at the edges, of which only a part is inside. */
  const countWide = async (
    rest: EntryFilter,
    edges: readonly Edge[],
    narrow: TallyFilter,
  ): Promise<Counts> => {
    const days = edges.map(({ day }) => day);
    const [less, whole, more] = await Promise.all([
      refusedTallies(db, rest, days, dayOf),
      days.length === 0 ? [] : keptTallies(db, ledgerDays, [inArray(ledgerDays.day, days)], []),
      edgeTallies(rest, edges),
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
    narrow: TallyFilter,
  ): Promise<Counts> => {
    const days = edges.map(({ day }) => day);
    if (isFine(rest)) {
      const [all, more] = await Promise.all([
        talliesOf(db, conditionsOf(rest, {}), dayOf),
        edgeTallies(rest, edges),
      ]);
      return counted([...all.filter(notOn(days)), ...more], narrow);
    }
    const [wanted, less, more] = await Promise.all([
      wantedTallies(db, rest, days, dayOf),
      refusedTallies(db, rest, days, dayOf),
      edgeTallies(rest, edges),
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
      const narrow = narrowOf(filter);
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

/** What of a filter tallies can be narrowed by. */
function narrowOf({ with: wanted = {}, without = {}, from, to }: EntryFilter): TallyFilter {
  return {
    with: wanted,
    without,
    from: from === undefined ? undefined : dayOfText(from),
    to: to === undefined ? undefined : dayOfText(to),
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
