import 'server-only';
import { and, desc, eq, gte, lte, max, min, ne, sql, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';
import type { Kind } from '@/core/insight/kinds';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerDays, ledgerPairs } from '@/server/db/schema';
import type { EntryFilter } from '@/server/repositories/ledger-reader';

/** Rows of one heading: what, and how many entries. */
export type Count = { readonly value: string; readonly entries: number };
export type DayCount = { readonly day: string; readonly granted: number; readonly refused: number };

type Dimension = keyof EntryFilter;
const MOST = 8;

/** The table that answers a filter, and its conditions: the fine one only where a document, person or sending is named. */
function heapsFor(filter: EntryFilter, without: readonly Dimension[] = []) {
  const { document, recipient, dispatch, kind, outcome, reason, place, organisation, from, to } = { ...filter, ...Object.fromEntries(without.map((name) => [name, undefined])) } as EntryFilter;
  const fine = document !== undefined || recipient !== undefined || dispatch !== undefined;
  const table = fine ? ledgerPairs : ledgerDays;
  const equal = (column: SQLiteColumn, value: string | undefined): SQL | undefined => (value === undefined ? undefined : eq(column, value));
  const where = and(
    equal(ledgerPairs.documentId, document), equal(ledgerPairs.recipientId, recipient), equal(ledgerPairs.dispatchId, dispatch),
    equal(table.kind, kind), equal(table.outcome, outcome), equal(table.reason, reason), equal(table.place, place), equal(table.organisation, organisation),
    from === undefined ? undefined : gte(table.day, from), to === undefined ? undefined : lte(table.day, to),
  );
  return { table, where, entries: sql<number>`coalesce(sum(${table.entries}), 0)` };
}

/** Entries that pass the filter, from the counts. */
export async function countEntries(db: Reading, filter: EntryFilter): Promise<number> {
  const { table, where, entries } = heapsFor(filter);
  const [row] = await db.select({ entries }).from(table).where(where);
  return row?.entries ?? 0;
}

/** First and last day that anything was recorded on. */
export async function recordedDays(db: Reading): Promise<{ readonly first: string; readonly last: string } | null> {
  const [row] = await db.select({ first: min(ledgerDays.day), last: max(ledgerDays.day) }).from(ledgerDays);
  return row?.first == null || row.last === null ? null : { first: row.first, last: row.last };
}

/** Entries a day, whatever span the filter asks for: the picture shows what lies beside it too. */
export async function countByDay(db: Reading, filter: EntryFilter): Promise<DayCount[]> {
  const { table, where } = heapsFor(filter, ['from', 'to']);
  return db
    .select({ day: table.day, granted: sql<number>`sum(CASE WHEN ${table.kind} = 'refused' THEN 0 ELSE ${table.entries} END)`, refused: sql<number>`sum(CASE WHEN ${table.kind} = 'refused' THEN ${table.entries} ELSE 0 END)` })
    .from(table).where(where).groupBy(table.day).orderBy(table.day);
}

async function countBy(db: Reading, name: 'kind' | 'reason' | 'place' | 'organisation', filter: EntryFilter, without: readonly Dimension[]): Promise<Count[]> {
  const { table, where, entries } = heapsFor(filter, without);
  return db.select({ value: sql<string>`${table[name]}`, entries }).from(table).where(and(where, ne(table[name], ''))).groupBy(table[name]).orderBy(desc(entries)).limit(MOST);
}

/** Entries under each heading, each counted under all filters but its own. */
export async function countFacets(db: Reading, filter: EntryFilter): Promise<{ readonly kinds: readonly { readonly value: Kind; readonly entries: number }[]; readonly reasons: readonly Count[]; readonly places: readonly Count[]; readonly organisations: readonly Count[] }> {
  const [kinds, reasons, places, organisations] = await Promise.all([
    countBy(db, 'kind', filter, ['kind']), countBy(db, 'reason', { ...filter, kind: 'refused' }, ['reason']), countBy(db, 'place', filter, ['place']), countBy(db, 'organisation', filter, ['organisation']),
  ]);
  return { kinds: kinds as { readonly value: Kind; readonly entries: number }[], reasons, places, organisations };
}

/** How many entries the counts stand for in all. */
export async function countedEntries(db: Reading): Promise<number> {
  return countEntries(db, {});
}

export async function emptyDays(tx: Transaction): Promise<void> {
  await tx.delete(ledgerDays).where(gte(ledgerDays.entries, 0));
  await tx.delete(ledgerPairs).where(gte(ledgerPairs.entries, 0));
}
