import 'server-only';
import { eq } from 'drizzle-orm';
import type { StaffId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { senderLimits } from '@/server/db/schema/staff';

export type SenderLimitsRecord = typeof senderLimits.$inferSelect;

export async function findSenderLimits(
  db: Reading | Transaction,
  staff: StaffId,
): Promise<SenderLimitsRecord | null> {
  const [row] = await db.select().from(senderLimits).where(eq(senderLimits.staffId, staff));
  return row ?? null;
}

export async function listSenderLimits(db: Reading): Promise<SenderLimitsRecord[]> {
  return db.select().from(senderLimits);
}

export async function putSenderLimits(
  tx: Transaction,
  row: Omit<SenderLimitsRecord, 'seal'>,
): Promise<void> {
  await tx
    .insert(senderLimits)
    .values(row)
    .onConflictDoUpdate({ target: senderLimits.staffId, set: row });
}

export async function removeSenderLimits(tx: Transaction, staff: StaffId): Promise<void> {
  await tx.delete(senderLimits).where(eq(senderLimits.staffId, staff));
}
