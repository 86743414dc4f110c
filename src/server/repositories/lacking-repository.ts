import 'server-only';
import { and, desc, eq, isNotNull, isNull, or, sql } from 'drizzle-orm';
import type { RecipientId, StaffId } from '@/core/base/ids';
import type { Reading } from '@/server/db/database';
import { documents, markings, versions } from '@/server/db/schema';

/** Grants of this person on the document of the row, by how they stand. */
function held(recipient: RecipientId, condition: ReturnType<typeof sql>) {
  return sql`EXISTS (SELECT 1 FROM grants AS held WHERE held.document_id = ${documents.id} AND held.recipient_id = ${recipient} AND ${condition})`;
}

/**
 * Live documents on which somebody has no grant that can be opened now or later, the newest first.
 *
 * @param ownedBy only what this member of staff answers for; absent: all
 */
export async function documentsLackedBy(db: Reading, recipient: RecipientId, { text, ownedBy }: { readonly text: string; readonly ownedBy?: StaffId | undefined }, now: number, limit: number) {
  const like = `%${text.replaceAll(/[\\%_]/g, '\\$&')}%`;
  const where = and(
    isNull(documents.revokedAt), isNotNull(versions.wrappedKey),
    sql`NOT ${held(recipient, sql`held.revoked_at IS NULL AND (held.until_at IS NULL OR held.until_at > ${now})`)}`,
    ownedBy === undefined ? undefined : or(eq(documents.ownerId, ownedBy), eq(documents.deputyId, ownedBy)),
    text === '' ? undefined : sql`(${documents.title} LIKE ${like} ESCAPE '\\' OR ${documents.reference} LIKE ${like} ESCAPE '\\')`,
  );
  const from = () => db.select({ id: documents.id, reference: documents.reference, title: documents.title, marking: markings.name, revoked: sql<number>`${held(recipient, sql`held.revoked_at IS NOT NULL`)}`, expired: sql<number>`${held(recipient, sql`held.revoked_at IS NULL`)}` }).from(documents).innerJoin(versions, eq(versions.id, documents.versionId)).leftJoin(markings, eq(markings.id, documents.markingId));
  const [rows, [counted]] = await Promise.all([
    from().where(where).orderBy(desc(documents.createdAt), desc(documents.id)).limit(limit),
    db.select({ total: sql<number>`count(*)` }).from(documents).innerJoin(versions, eq(versions.id, documents.versionId)).where(where),
  ]);
  return { rows, total: counted?.total ?? 0 };
}
