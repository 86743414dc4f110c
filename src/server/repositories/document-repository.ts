import 'server-only';
import { and, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import type { DocumentId, StaffId, UploadId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, grants, licences, staff, uploads, versions } from '@/server/db/schema';

export type UploadRow = typeof uploads.$inferSelect;

export async function findUpload(db: Reading, id: UploadId, owner: StaffId): Promise<UploadRow | null> {
  const [row] = await db.select().from(uploads).where(and(eq(uploads.id, id), eq(uploads.staffId, owner)));
  return row ?? null;
}

/** Uploads, whoever began them, of which no part has come since. */
export async function uploadsUntouchedSince(db: Reading, moment: number): Promise<UploadRow[]> {
  return db.select().from(uploads).where(lt(uploads.updatedAt, moment));
}

export async function insertUpload(tx: Transaction, row: typeof uploads.$inferInsert): Promise<void> {
  await tx.insert(uploads).values(row);
}

export async function advanceUpload(tx: Transaction, id: UploadId, receivedBytes: number, now: number): Promise<void> {
  await tx.update(uploads).set({ receivedBytes, updatedAt: now }).where(eq(uploads.id, id));
}

export async function removeUpload(tx: Transaction, id: UploadId): Promise<void> {
  await tx.delete(uploads).where(eq(uploads.id, id));
}

export async function uploadBlobKeys(db: Reading): Promise<Set<string>> {
  const rows = await db.select({ key: uploads.blobKey }).from(uploads);
  return new Set(rows.map((row) => row.key));
}

export async function insertDocument(tx: Transaction, document: typeof documents.$inferInsert, version: typeof versions.$inferInsert): Promise<void> {
  await tx.insert(documents).values(document);
  await tx.insert(versions).values(version);
}

export async function referenceTaken(db: Reading | Transaction, reference: string): Promise<boolean> {
  const rows = await db.select({ id: documents.id }).from(documents).where(eq(documents.reference, reference)).limit(1);
  return rows.length > 0;
}

export async function listDocumentRows(db: Reading) {
  const people = db.select({ documentId: grants.documentId, people: sql<number | null>`count(distinct ${grants.recipientId})`.as('people') }).from(grants).groupBy(grants.documentId).as('people_counts');
  const opens = db.select({ documentId: licences.documentId, opens: sql<number | null>`count(*)`.as('opens') }).from(licences).groupBy(licences.documentId).as('open_counts');
  return db
    .select({
      id: documents.id, reference: documents.reference, title: documents.title, pages: versions.pages, bytes: versions.bytes, ownerId: documents.ownerId, ownerName: staff.name,
      protectedAt: documents.createdAt, revokedAt: documents.revokedAt, people: people.people, opens: opens.opens,
    })
    .from(documents)
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(staff, eq(staff.id, documents.ownerId))
    .leftJoin(people, eq(people.documentId, documents.id))
    .leftJoin(opens, eq(opens.documentId, documents.id))
    .orderBy(desc(documents.createdAt), documents.id);
}

export async function findDocument(db: Reading | Transaction, id: DocumentId) {
  const [row] = await db.select({ document: documents, version: versions, ownerName: staff.name }).from(documents).innerJoin(versions, eq(versions.id, documents.versionId)).innerJoin(staff, eq(staff.id, documents.ownerId)).where(eq(documents.id, id));
  return row ?? null;
}

/** Deletes the keys of every version of a document. */
export async function dropKeys(tx: Transaction, id: DocumentId): Promise<void> {
  await tx.update(versions).set({ wrappedKey: null }).where(eq(versions.documentId, id));
}

export async function findDocuments(db: Reading | Transaction, ids: readonly DocumentId[]): Promise<(typeof documents.$inferSelect)[]> {
  return db.select().from(documents).where(inArray(documents.id, [...ids]));
}

/** @returns whether it was live until now */
export async function setDocumentRevoked(tx: Transaction, id: DocumentId, by: StaffId, now: number): Promise<boolean> {
  const rows = await tx.update(documents).set({ revokedAt: now, revokedBy: by }).where(and(eq(documents.id, id), isNull(documents.revokedAt))).returning({ id: documents.id });
  return rows.length > 0;
}

/** @returns whether it was revoked until now */
export async function setDocumentReinstated(tx: Transaction, id: DocumentId): Promise<boolean> {
  const rows = await tx.update(documents).set({ revokedAt: null, revokedBy: null }).where(and(eq(documents.id, id), sql`${documents.revokedAt} IS NOT NULL`)).returning({ id: documents.id });
  return rows.length > 0;
}

/** Documents revoked at present, for the comparison with the ledger. */
export async function revokedDocumentIds(db: Reading): Promise<DocumentId[]> {
  const rows = await db.select({ id: documents.id }).from(documents).where(sql`${documents.revokedAt} IS NOT NULL`);
  return rows.map((row) => row.id);
}
