import 'server-only';
import { and, desc, eq, lte, sql, type SQL } from 'drizzle-orm';
import type { DispatchId, Id } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { mailroom, outbox } from '@/server/db/schema/mailing';

export type OutboxRow = typeof outbox.$inferSelect;
/** Where a message is. */
export type MailState = OutboxRow['state'];

/** Puts messages into the outbox, in the transaction that gives rise to them. */
export async function queueMail(
  tx: Transaction,
  rows: readonly (typeof outbox.$inferInsert)[],
): Promise<void> {
  if (rows.length > 0) await tx.insert(outbox).values([...rows]);
}

/** What waits and may be handed over now; `urgent`: codes and notices alone. */
function isDue(which: 'urgent' | 'all', now: number): SQL | undefined {
  return and(
    eq(outbox.state, 'waiting'),
    which === 'urgent' ? eq(outbox.urgent, true) : undefined,
    lte(outbox.nextAttemptAt, now),
  );
}

/** Whether any message is due. */
export async function hasMailDue(
  db: Reading,
  which: 'urgent' | 'all',
  now: number,
): Promise<boolean> {
  const rows = await db.select({ id: outbox.id }).from(outbox).where(isDue(which, now)).limit(1);
  return rows.length > 0;
}

/**
 * Marks the next message that is due as being handed over, codes and notices before all else.
 * `lease`: until when that may take.
 */
export async function claimMail(
  tx: Transaction,
  which: 'urgent' | 'all',
  now: number,
  lease: number,
): Promise<OutboxRow | null> {
  const [next] = await tx
    .select({ id: outbox.id })
    .from(outbox)
    .where(isDue(which, now))
    .orderBy(desc(outbox.urgent), outbox.nextAttemptAt, sql`rowid`)
    .limit(1);
  if (next === undefined) return null;
  const [row] = await tx
    .update(outbox)
    .set({ state: 'sending', attempts: sql`${outbox.attempts} + 1`, nextAttemptAt: lease })
    .where(eq(outbox.id, next.id))
    .returning();
  return row ?? null;
}

/** What is marked as being handed over; `now`: only what should have been settled by then. */
export async function interruptedMail(tx: Transaction, now: number | null): Promise<OutboxRow[]> {
  return tx
    .select()
    .from(outbox)
    .where(
      and(eq(outbox.state, 'sending'), now === null ? undefined : lte(outbox.nextAttemptAt, now)),
    );
}

export async function settleMail(
  tx: Transaction,
  id: Id<'message'>,
  change: Partial<
    Pick<
      OutboxRow,
      | 'state'
      | 'attempts'
      | 'nextAttemptAt'
      | 'lastError'
      | 'deliveredAt'
      | 'returnedAt'
      | 'body'
      | 'html'
    >
  >,
): Promise<void> {
  await tx.update(outbox).set(change).where(eq(outbox.id, id));
}

export async function findMail(db: Reading | Transaction, id: string): Promise<OutboxRow | null> {
  const [row] = await db
    .select()
    .from(outbox)
    .where(eq(outbox.id, id as Id<'message'>));
  return row ?? null;
}

/** The last message of a dispatch to each of its recipients. */
export async function lastMails(db: Reading, dispatch: DispatchId) {
  const rows = await db
    .select({
      recipientId: outbox.recipientId,
      state: outbox.state,
      problem: outbox.lastError,
      createdAt: outbox.createdAt,
      deliveredAt: outbox.deliveredAt,
      returnedAt: outbox.returnedAt,
    })
    .from(outbox)
    .where(eq(outbox.dispatchId, dispatch))
    .orderBy(outbox.createdAt, sql`rowid`);
  return [...new Map(rows.map((row) => [row.recipientId, row])).values()];
}

/** Keeps what waits of a dispatch from going out. @returns how many messages */
export async function stopWaiting(tx: Transaction, dispatch: DispatchId): Promise<number> {
  const rows = await tx
    .update(outbox)
    .set({ state: 'stopped', body: '', html: null })
    .where(and(eq(outbox.dispatchId, dispatch), eq(outbox.state, 'waiting')))
    .returning({ id: outbox.id });
  return rows.length;
}

export async function listMailroom(db: Reading, address: string | undefined, limit: number) {
  return db
    .select({
      id: mailroom.id,
      toAddress: mailroom.toAddress,
      fromAddress: mailroom.fromAddress,
      subject: mailroom.subject,
      receivedAt: mailroom.receivedAt,
    })
    .from(mailroom)
    .where(address === undefined ? undefined : eq(mailroom.toAddress, address))
    .orderBy(desc(mailroom.receivedAt), desc(sql`rowid`))
    .limit(limit);
}

export async function findMailroomMessage(db: Reading, id: string) {
  const [row] = await db
    .select()
    .from(mailroom)
    .where(eq(mailroom.id, id as Id<'message'>));
  return row ?? null;
}

export async function mailroomAddresses(db: Reading): Promise<string[]> {
  const rows = await db
    .selectDistinct({ address: mailroom.toAddress })
    .from(mailroom)
    .orderBy(mailroom.toAddress);
  return rows.map((row) => row.address);
}
