import 'server-only';
import { eq, lt } from 'drizzle-orm';
import type { Json } from '@/core/ledger/canonical';
import type { Reading, Transaction } from '@/server/db/database';
import { requestsDone } from '@/server/db/schema/organisation';

export type ActRecord = typeof requestsDone.$inferSelect;

export async function findAct(db: Reading, key: string): Promise<ActRecord | null> {
  const [row] = await db.select().from(requestsDone).where(eq(requestsDone.key, key));
  return row ?? null;
}

/** Keeps what an act was answered with, for the same request come again. */
export async function answerAct(tx: Transaction, key: string, answer: Json): Promise<void> {
  await tx.update(requestsDone).set({ answer }).where(eq(requestsDone.key, key));
}

/** Forgets acts that nobody will ask for again. */
export async function forgetActs(tx: Transaction, before: number): Promise<void> {
  await tx.delete(requestsDone).where(lt(requestsDone.doneAt, before));
}
