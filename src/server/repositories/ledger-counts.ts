import 'server-only';
import { and, desc, eq, gte, lte, max, min, ne, sql, sum, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';
import type { Kind } from '@/core/insight/kinds';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerDays, recipients } from '@/server/db/schema';
import type { EntryFilter } from '@/server/repositories/ledger-reader';

/** Rows of one heading: what, and how many entries. */
export type Count = { readonly value: string; readonly entries: number };
export type DayCount = { readonly day: string; readonly granted: number; readonly refused: number };

type Dimension = keyof EntryFilter;
const MOST = 8;

function conditions(filter: EntryFilter, without: readonly Dimension[]): SQL | undefined {
  const given = <K extends Dimension>(name: K): EntryFilter[K] | undefined => (without.includes(name) ? undefined : filter[name]);
  const equal = (column: SQLiteColumn, value: string | undefined): SQL | undefined => (value === undefined ? undefined : eq(column, value));
  const organisation = given('organisation');
  const [from, to] = [given('from'), given('to')];
  return and(
    equal(ledgerDays.documentId, given('document')), equal(ledgerDays.recipientId, given('recipient')), equal(ledgerDays.dispatchId, given('dispatch')),
    equal(ledgerDays.kind, given('kind')), equal(ledgerDays.reason, given('reason')), equal(ledgerDays.place, given('place')),
    organisation === undefined ? undefined : sql`${ledgerDays.recipientId} IN (SELECT ${recipients.id} FROM ${recipients} WHERE ${recipients.organisation} = ${organisation})`,
    from === undefined ? undefined : gte(ledgerDays.day, from),
    to === undefined ? undefined : lte(ledgerDays.day, to),
  );
}

const total = sql<number>`coalesce(sum(${ledgerDays.entries}), 0)`;

/** Entries that pass the filter, from the counts. */
export async function countEntries(db: Reading, filter: EntryFilter): Promise<number> {
  const [row] = await db.select({ entries: total }).from(ledgerDays).where(conditions(filter, []));
  return row?.entries ?? 0;
}

/** First and last day that anything was recorded on. */
export async function recordedDays(db: Reading): Promise<{ readonly first: string; readonly last: string } | null> {
  const [row] = await db.select({ first: min(ledgerDays.day), last: max(ledgerDays.day) }).from(ledgerDays);
  return row?.first == null || row.last === null ? null : { first: row.first, last: row.last };
}

/** Entries a day, whatever span the filter asks for: the picture shows what lies beside it too. */
export async function countByDay(db: Reading, filter: EntryFilter): Promise<DayCount[]> {
  return db
    .select({ day: ledgerDays.day, granted: sql<number>`sum(CASE WHEN ${ledgerDays.kind} = 'refused' THEN 0 ELSE ${ledgerDays.entries} END)`, refused: sql<number>`sum(CASE WHEN ${ledgerDays.kind} = 'refused' THEN ${ledgerDays.entries} ELSE 0 END)` })
    .from(ledgerDays).where(conditions(filter, ['from', 'to'])).groupBy(ledgerDays.day).orderBy(ledgerDays.day);
}

async function countBy(db: Reading, column: SQLiteColumn, where: SQL | undefined): Promise<Count[]> {
  const rows = await db.select({ value: sql<string>`${column}`, entries: total }).from(ledgerDays).where(where).groupBy(column).orderBy(desc(sum(ledgerDays.entries))).limit(MOST);
  return rows;
}

/** Entries under each heading, each counted under all filters but its own. */
export async function countFacets(db: Reading, filter: EntryFilter): Promise<{ readonly kinds: readonly { readonly value: Kind; readonly entries: number }[]; readonly reasons: readonly Count[]; readonly places: readonly Count[]; readonly organisations: readonly Count[] }> {
  const [kinds, reasons, places, organisations] = await Promise.all([
    countBy(db, ledgerDays.kind, conditions(filter, ['kind'])),
    countBy(db, ledgerDays.reason, and(conditions(filter, ['reason', 'kind']), eq(ledgerDays.kind, 'refused'), ne(ledgerDays.reason, ''))),
    countBy(db, ledgerDays.place, and(conditions(filter, ['place']), ne(ledgerDays.place, ''))),
    db.select({ value: recipients.organisation, entries: total }).from(ledgerDays).innerJoin(recipients, eq(recipients.id, ledgerDays.recipientId)).where(and(conditions(filter, ['organisation']), ne(recipients.organisation, ''))).groupBy(recipients.organisation).orderBy(desc(sum(ledgerDays.entries))).limit(MOST),
  ]);
  return { kinds: kinds as { readonly value: Kind; readonly entries: number }[], reasons, places, organisations };
}

/** How many entries the counts stand for in all. */
export async function countedEntries(db: Reading): Promise<number> {
  return countEntries(db, {});
}

export async function emptyDays(tx: Transaction): Promise<void> {
  await tx.delete(ledgerDays).where(gte(ledgerDays.entries, 0));
}
