import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import type { DraftId, StaffId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { drafts } from '@/server/db/schema/dispatching';

type DraftRecord = typeof drafts.$inferSelect;

/** Somebody's own drafts, the last touched first. */
export async function draftsOf(db: Reading | Transaction, owner: StaffId): Promise<DraftRecord[]> {
  return db.select().from(drafts).where(eq(drafts.staffId, owner)).orderBy(desc(drafts.updatedAt));
}

export async function findDraft(
  db: Reading | Transaction,
  id: DraftId,
  owner: StaffId,
): Promise<DraftRecord | null> {
  const [row] = await db
    .select()
    .from(drafts)
    .where(and(eq(drafts.id, id), eq(drafts.staffId, owner)));
  return row ?? null;
}

export async function putDraft(tx: Transaction, row: DraftRecord): Promise<void> {
  await tx
    .insert(drafts)
    .values(row)
    .onConflictDoUpdate({
      target: drafts.id,
      set: { body: row.body, revision: row.revision, updatedAt: row.updatedAt },
    });
}

export async function removeDraft(tx: Transaction, id: DraftId, owner: StaffId): Promise<void> {
  await tx.delete(drafts).where(and(eq(drafts.id, id), eq(drafts.staffId, owner)));
}
