import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import type { ConsentId, StaffId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { consents } from '@/server/db/schema/access';
import { staff } from '@/server/db/schema/staff';

export type ConsentRecord = typeof consents.$inferSelect;

export async function insertConsent(
  tx: Transaction,
  row: Omit<typeof consents.$inferInsert, 'state'>,
): Promise<void> {
  await tx.insert(consents).values({ ...row, state: 'waiting' });
}

export async function waitingConsents(db: Reading) {
  return db
    .select({ consent: consents, askedBy: staff.name })
    .from(consents)
    .innerJoin(staff, eq(staff.id, consents.askedBy))
    .where(eq(consents.state, 'waiting'))
    .orderBy(desc(consents.askedAt));
}

/** Answers a request that still waits; `null` where it does not. */
export async function settleConsent(
  tx: Transaction,
  id: ConsentId,
  state: 'agreed' | 'declined',
  by: StaffId,
  now: number,
): Promise<ConsentRecord | null> {
  const [row] = await tx
    .update(consents)
    .set({ state, answeredBy: by, answeredAt: now })
    .where(and(eq(consents.id, id), eq(consents.state, 'waiting')))
    .returning();
  return row ?? null;
}

export async function findConsent(tx: Transaction, id: ConsentId): Promise<ConsentRecord | null> {
  const [row] = await tx.select().from(consents).where(eq(consents.id, id));
  return row ?? null;
}
