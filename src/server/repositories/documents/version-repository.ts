import 'server-only';
import { and, desc, eq, isNull, max, or, sql } from 'drizzle-orm';
import type { DocumentId, VersionId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { licences, revisions } from '@/server/db/schema/reading';
import { staff } from '@/server/db/schema/staff';

/** A version beside those there are; which one opens stays as it is. */
export async function insertVersion(
  tx: Transaction,
  version: typeof versions.$inferInsert,
): Promise<void> {
  await tx.insert(versions).values(version);
}

/** Has another version of a document open from now on. */
export async function openVersion(
  tx: Transaction,
  document: DocumentId,
  version: VersionId,
): Promise<void> {
  await tx.update(documents).set({ versionId: version }).where(eq(documents.id, document));
}

/** The number of the next version: none is given twice, also where a changed file was declined. */
export async function nextVersionNumber(tx: Transaction, document: DocumentId): Promise<number> {
  const [row] = await tx
    .select({ last: max(versions.number) })
    .from(versions)
    .where(eq(versions.documentId, document));
  return (row?.last ?? 0) + 1;
}

/** A version of a document by its number. */
export async function findVersion(db: Reading | Transaction, document: DocumentId, number: number) {
  const [row] = await db
    .select()
    .from(versions)
    .where(and(eq(versions.documentId, document), eq(versions.number, number)));
  return row ?? null;
}

/** Notes that everybody was told of a version. @returns whether they had not been */
export async function noteTold(tx: Transaction, id: VersionId, now: number): Promise<boolean> {
  const rows = await tx
    .update(versions)
    .set({ toldAt: now })
    .where(and(eq(versions.id, id), isNull(versions.toldAt)))
    .returning({ id: versions.id });
  return rows.length > 0;
}

/**
 * Every version of a document that opens or did, the newest first, with how often each was opened: not
 * the changed files that nobody accepted.
 */
export async function versionsOf(db: Reading, id: DocumentId) {
  return db
    .select({
      number: versions.number,
      fileName: versions.fileName,
      pages: versions.pages,
      bytes: versions.bytes,
      createdAt: versions.createdAt,
      /** Who sent it back, where no member of staff added it. */
      createdBy: sql<string>`coalesce(${staff.name}, nullif(${recipients.name}, ''), ${recipients.address}, '')`,
      isCurrent: sql`${versions.id} = ${documents.versionId}`.mapWith(Boolean),
      toldAt: versions.toldAt,
      opens: sql<number>`(SELECT count(*) FROM ${licences} WHERE ${licences.versionId} = ${versions.id})`,
    })
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .leftJoin(staff, eq(staff.id, versions.createdBy))
    .leftJoin(revisions, eq(revisions.versionId, versions.id))
    .leftJoin(recipients, eq(recipients.id, revisions.recipientId))
    .where(
      and(eq(versions.documentId, id), or(isNull(revisions.id), eq(revisions.state, 'accepted'))),
    )
    .orderBy(desc(versions.number));
}
