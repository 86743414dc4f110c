import 'server-only';
import { and, eq, gte, sql } from 'drizzle-orm';
import type { Seen } from '@/core/insight/elsewhere';
import type { EntryFilter } from '@/core/insight/filter';
import { kindOf, type Kind } from '@/core/insight/kinds';
import type { Entry } from '@/core/ledger/entry';
import { createHeaps, type Counts, type Heap, type Heaps } from '@/core/insight/heaps';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerDays, ledgerEntries, ledgerPairs, ledgerPersonal, recipients } from '@/server/db/schema';

/** Counts entries by the heaps they were put on as they were written. */
export type LedgerCounts = { readonly count: (filter: EntryFilter) => Promise<Counts>; readonly seen: (kind: Kind) => Promise<Seen[]> };

/** A heap as SQLite hands it over: one text for many rows costs a tenth of rows one by one. */
type HeapTuple = readonly [Heap['day'], Heap['kind'], Heap['outcome'], string, string, string, number, number];

function putAll(heaps: Heaps, tuples: readonly HeapTuple[]): number {
  let last = 0;
  for (const [day, kind, outcome, reason, place, organisation, entries, sequence] of tuples) {
    heaps.put({ day, kind, outcome, reason, place, organisation, entries });
    last = Math.max(last, sequence);
  }
  return last;
}

/** What others did by the link of somebody, which is counted with what is recorded of that person. They are few: each is a heap of its own. */
async function byLinkOf(db: Reading, recipient: string, { document, dispatch }: Pick<EntryFilter, 'document' | 'dispatch'>, dayOf: (moment: number) => string): Promise<Heap[]> {
  const rows = await db
    .select({ body: ledgerEntries.body, place: ledgerPersonal.value, organisation: recipients.organisation })
    .from(ledgerEntries)
    .leftJoin(ledgerPersonal, and(eq(ledgerPersonal.sequence, ledgerEntries.sequence), eq(ledgerPersonal.field, 'place')))
    .leftJoin(recipients, eq(recipients.id, ledgerEntries.recipientId))
    .where(and(
      eq(ledgerEntries.linkOf, recipient), sql`${ledgerEntries.recipientId} IS NOT ${recipient}`,
      document === undefined ? undefined : eq(ledgerEntries.documentId, document), dispatch === undefined ? undefined : eq(ledgerEntries.dispatchId, dispatch),
    ));
  return rows.map(({ body, place, organisation }) => {
    const { action, outcome, reason, occurredAt } = JSON.parse(body) as Entry;
    return { day: dayOf(Date.parse(occurredAt)), kind: kindOf(action, outcome), outcome, reason: reason ?? '', place: place?.split(',')[0] ?? '', organisation: organisation ?? '', entries: 1 };
  });
}

/**
 * Holds the heaps of the whole ledger in memory. Each question first reads those that were touched
 * since the last one, so that several processes on one database all answer truly. Where a document,
 * a person or a sending is named, its own few heaps are read instead.
 */
export function createLedgerCounts(db: Reading, dayOf: (moment: number) => string): LedgerCounts {
  const held = createHeaps();
  let seen = -1;
  const refresh = async (): Promise<void> => {
    const [got] = await db.all<{ heaps: string }>(sql`SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation, entries, last)) AS heaps FROM ledger_days WHERE last > ${seen}`);
    const tuples = JSON.parse(got?.heaps ?? '[]') as HeapTuple[];
    if (tuples.length > 0) seen = Math.max(seen, putAll(held, tuples));
  };
  return {
    seen: async (kind) => {
      await refresh();
      return held.seen(kind);
    },
    count: async (filter) => {
      const { document, recipient, dispatch, ...narrow } = filter;
      if (document === undefined && recipient === undefined && dispatch === undefined) {
        await refresh();
        return held.count(narrow);
      }
      const equal = (column: typeof ledgerPairs.documentId | typeof ledgerPairs.recipientId | typeof ledgerPairs.dispatchId, value: string | undefined) => (value === undefined ? undefined : eq(column, value));
      const where = and(equal(ledgerPairs.documentId, document), equal(ledgerPairs.recipientId, recipient), equal(ledgerPairs.dispatchId, dispatch));
      const [got] = await db.all<{ heaps: string }>(sql`
        SELECT json_group_array(json_array(day, kind, outcome, reason, place, organisation, entries, 0)) AS heaps
        FROM (SELECT day, kind, outcome, reason, place, organisation, sum(entries) AS entries FROM ledger_pairs WHERE ${where} GROUP BY day, kind, outcome, reason, place, organisation)`);
      const own = createHeaps();
      putAll(own, JSON.parse(got?.heaps ?? '[]') as HeapTuple[]);
      if (recipient !== undefined) for (const heap of await byLinkOf(db, recipient, { document, dispatch }, dayOf)) own.put(heap);
      return own.count(narrow);
    },
  };
}

/** How many entries the counts stand for in all. */
export async function countedEntries(db: Reading): Promise<number> {
  const [row] = await db.select({ entries: sql<number>`coalesce(sum(${ledgerDays.entries}), 0)` }).from(ledgerDays);
  return row?.entries ?? 0;
}

export async function emptyDays(tx: Transaction): Promise<void> {
  await tx.delete(ledgerDays).where(gte(ledgerDays.entries, 0));
  await tx.delete(ledgerPairs).where(gte(ledgerPairs.entries, 0));
}
