import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import type { ReaderNotice } from '@/core/message/reader-notice';
import type { Reading, Transaction } from '@/server/db/database';
import { noticeAcceptances, readerNotices } from '@/server/db/schema/reading';

/** The newest wording; version 0 without texts where there was none yet. */
export async function newestNotice(db: Reading | Transaction): Promise<ReaderNotice> {
  const [row] = await db
    .select({ version: readerNotices.version, texts: readerNotices.texts })
    .from(readerNotices)
    .orderBy(desc(readerNotices.version))
    .limit(1);
  return row ?? { version: 0, texts: {} };
}

export async function insertNotice(
  tx: Transaction,
  row: typeof readerNotices.$inferInsert,
): Promise<void> {
  await tx.insert(readerNotices).values(row);
}

export async function hasAccepted(
  db: Reading | Transaction,
  address: string,
  version: number,
): Promise<boolean> {
  const isTheirs = and(
    eq(noticeAcceptances.address, address),
    eq(noticeAcceptances.version, version),
  );
  return (await db.$count(noticeAcceptances, isTheirs)) > 0;
}

export async function countAccepted(db: Reading, version: number): Promise<number> {
  return db.$count(noticeAcceptances, eq(noticeAcceptances.version, version));
}

/** @returns whether it was not accepted before */
export async function insertAcceptance(
  tx: Transaction,
  row: typeof noticeAcceptances.$inferInsert,
): Promise<boolean> {
  const rows = await tx.insert(noticeAcceptances).values(row).onConflictDoNothing().returning();
  return rows.length > 0;
}
