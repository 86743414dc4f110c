import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import type { StaffId, ViewId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { savedViews } from '@/server/db/schema/staff';

type ViewPlace = (typeof savedViews.$inferSelect)['place'];

/** Somebody's saved views of a list, by name. */
export async function viewsOf(db: Reading | Transaction, owner: StaffId, place: ViewPlace) {
  return db
    .select({ id: savedViews.id, name: savedViews.name, query: savedViews.query })
    .from(savedViews)
    .where(and(eq(savedViews.staffId, owner), eq(savedViews.place, place)))
    .orderBy(sql`${savedViews.name} COLLATE NOCASE`);
}

export async function putViewRow(
  tx: Transaction,
  row: typeof savedViews.$inferInsert,
): Promise<void> {
  await tx
    .insert(savedViews)
    .values(row)
    .onConflictDoUpdate({
      target: [savedViews.staffId, savedViews.place, savedViews.name],
      set: { query: row.query },
    });
}

export async function removeViewRow(tx: Transaction, id: ViewId, owner: StaffId): Promise<void> {
  await tx.delete(savedViews).where(and(eq(savedViews.id, id), eq(savedViews.staffId, owner)));
}
