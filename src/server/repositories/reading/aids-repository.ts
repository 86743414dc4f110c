import 'server-only';
import { and, eq, inArray } from 'drizzle-orm';
import type { RecipientId, StaffId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { readingAids } from '@/server/db/schema/reading';

/** For whom an owner switched reading aids on, of these people. */
export async function aidsFor(db: Reading | Transaction, recipients: readonly RecipientId[]) {
  if (recipients.length === 0) return [];
  return db
    .select()
    .from(readingAids)
    .where(inArray(readingAids.recipientId, [...recipients]));
}

export async function insertAids(
  tx: Transaction,
  row: typeof readingAids.$inferInsert,
): Promise<void> {
  await tx.insert(readingAids).values(row).onConflictDoNothing();
}

export async function deleteAids(
  tx: Transaction,
  owner: StaffId,
  recipient: RecipientId,
): Promise<void> {
  await tx
    .delete(readingAids)
    .where(and(eq(readingAids.ownerId, owner), eq(readingAids.recipientId, recipient)));
}
