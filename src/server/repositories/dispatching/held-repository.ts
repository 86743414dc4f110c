import 'server-only';
import { and, asc, eq, inArray, lte } from 'drizzle-orm';
import type { HeldId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { heldDispatches } from '@/server/db/schema/dispatching';
import { staff } from '@/server/db/schema/staff';

export type HeldRecord = Omit<typeof heldDispatches.$inferSelect, 'seal'>;

export async function insertHeld(
  tx: Transaction,
  row: Omit<typeof heldDispatches.$inferInsert, 'state' | 'seal'>,
): Promise<void> {
  await tx.insert(heldDispatches).values(row);
}

/** What is held back, and what could not leave and was not looked at yet, the next to leave first. */
export async function listHeld(db: Reading) {
  return db
    .select({ held: heldDispatches, by: staff.name })
    .from(heldDispatches)
    .innerJoin(staff, eq(staff.id, heldDispatches.staffId))
    .where(inArray(heldDispatches.state, ['held', 'failed']))
    .orderBy(asc(heldDispatches.leavesAt));
}

export async function findHeld(db: Reading | Transaction, id: HeldId): Promise<HeldRecord | null> {
  const [row] = await db.select().from(heldDispatches).where(eq(heldDispatches.id, id));
  return row ?? null;
}

/** Those whose time has come. */
export async function dueHeld(db: Reading, now: number): Promise<HeldId[]> {
  const rows = await db
    .select({ id: heldDispatches.id })
    .from(heldDispatches)
    .where(and(eq(heldDispatches.state, 'held'), lte(heldDispatches.leavesAt, now)))
    .orderBy(asc(heldDispatches.leavesAt));
  return rows.map(({ id }) => id);
}

/** Settles one that is in one of these states; `false` where it is not any more. */
export async function settleHeld(
  tx: Transaction,
  id: HeldId,
  from: readonly HeldRecord['state'][],
  to: Partial<Pick<HeldRecord, 'state' | 'problem' | 'leavesAt'>>,
): Promise<boolean> {
  const rows = await tx
    .update(heldDispatches)
    .set(to)
    .where(and(eq(heldDispatches.id, id), inArray(heldDispatches.state, [...from])))
    .returning({ id: heldDispatches.id });
  return rows.length > 0;
}

export async function removeHeld(tx: Transaction, id: HeldId): Promise<void> {
  await tx.delete(heldDispatches).where(eq(heldDispatches.id, id));
}
