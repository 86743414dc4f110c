import 'server-only';
import { and, desc, eq, isNull, lt } from 'drizzle-orm';
import type { StaffId, UploadId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { uploads } from '@/server/db/schema/documents';

export type UploadRow = typeof uploads.$inferSelect;

export async function findUpload(
  db: Reading | Transaction,
  id: UploadId,
  owner: StaffId,
): Promise<UploadRow | null> {
  const [row] = await db
    .select()
    .from(uploads)
    .where(and(eq(uploads.id, id), eq(uploads.staffId, owner)));
  return row ?? null;
}

/** Uploads that somebody began as documents of their own and has not finished, the newest first. */
export async function uploadsOf(db: Reading, staff: StaffId): Promise<UploadRow[]> {
  return db
    .select()
    .from(uploads)
    .where(and(eq(uploads.staffId, staff), isNull(uploads.documentId)))
    .orderBy(desc(uploads.updatedAt));
}

/** Uploads, no matter who began them, of which no part has come since. */
export async function uploadsUntouchedSince(db: Reading, moment: number): Promise<UploadRow[]> {
  return db.select().from(uploads).where(lt(uploads.updatedAt, moment));
}

export async function insertUpload(
  tx: Transaction,
  row: typeof uploads.$inferInsert,
): Promise<void> {
  await tx.insert(uploads).values(row);
}

/** Notes what is about to be sealed in an upload, and from where on. */
export async function noteSealing(
  tx: Transaction,
  id: UploadId,
  sealingFrom: number,
  sealingMac: string,
): Promise<void> {
  await tx.update(uploads).set({ sealingFrom, sealingMac }).where(eq(uploads.id, id));
}

export async function advanceUpload(
  tx: Transaction,
  { id, mediaType, receivedBytes, contentMac }: UploadRow,
  now: number,
): Promise<void> {
  await tx
    .update(uploads)
    .set({ receivedBytes, mediaType, contentMac, updatedAt: now })
    .where(eq(uploads.id, id));
}

/** Notes how long the pages are that were made of an upload. */
export async function notePages(
  tx: Transaction,
  id: UploadId,
  pagesBytes: number | null,
): Promise<void> {
  await tx.update(uploads).set({ pagesBytes }).where(eq(uploads.id, id));
}

export async function removeUpload(tx: Transaction, id: UploadId): Promise<void> {
  await tx.delete(uploads).where(eq(uploads.id, id));
}
