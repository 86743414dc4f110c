import 'server-only';
import { asc, eq, gt, isNotNull, sql } from 'drizzle-orm';
import type { VersionId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';

const stored = {
  id: versions.id,
  blobKey: versions.blobKey,
  headerBytes: versions.headerBytes,
  bytes: versions.bytes,
  pagesBytes: versions.pagesBytes,
  isLocal: versions.isLocal,
  wrappedKey: versions.wrappedKey,
  keyGeneration: versions.keyGeneration,
  damagedAt: versions.damagedAt,
  reference: documents.reference,
  title: documents.title,
};
export type StoredVersion = NonNullable<Awaited<ReturnType<typeof versionAfter>>>;

/** The version that follows another one in the order of ids; the first behind `null`. */
export async function versionAfter(db: Reading, id: VersionId | null) {
  const [row] = await db
    .select(stored)
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .where(id === null ? undefined : gt(versions.id, id))
    .orderBy(asc(versions.id))
    .limit(1);
  return row ?? null;
}

export async function allStoredVersions(db: Reading): Promise<StoredVersion[]> {
  return db
    .select(stored)
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .orderBy(asc(versions.id));
}

export async function setDamaged(
  tx: Transaction,
  id: VersionId,
  damagedAt: number | null,
): Promise<void> {
  await tx.update(versions).set({ damagedAt }).where(eq(versions.id, id));
}

/** What the documents are called whose current content is damaged. */
export async function damagedTitles(db: Reading): Promise<string[]> {
  const rows = await db
    .select({ reference: documents.reference, title: documents.title })
    .from(versions)
    .innerJoin(documents, eq(documents.versionId, versions.id))
    .where(isNotNull(versions.damagedAt))
    .orderBy(documents.reference);
  return rows.map(({ reference, title }) => `${reference} ${title}`);
}

/** A row that names something that is not in the table `parent`. */
export type Dangling = { readonly row: string; readonly parent: string };

/**
 * Rows that name something that is not there (SQLite, PRAGMA foreign_key_check), and documents
 * without their version.
 */
export async function danglingRows(db: Reading): Promise<Dangling[]> {
  const rows = await db.all<{ table: string; rowid: number | null; parent: string }>(
    sql`PRAGMA foreign_key_check`,
  );
  const lost = await db.all<{ id: string }>(
    sql`SELECT id FROM documents WHERE version_id NOT IN (SELECT id FROM versions)`,
  );
  return [
    ...rows.map(({ table, rowid, parent }) => ({ row: `${table} ${String(rowid ?? '')}`, parent })),
    ...lost.map(({ id }) => ({ row: id, parent: 'versions' })),
  ];
}
