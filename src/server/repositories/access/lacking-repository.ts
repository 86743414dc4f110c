import 'server-only';
import { and, desc, eq, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm';
import type { DocumentId, RecipientId, StaffId } from '@/core/base/ids';
import type { Reading } from '@/server/db/database';
import { notEnded } from '@/server/repositories/access/effective-end';
import { holding } from '@/server/repositories/access/holding';
import { documents, markings, versions } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';

// Written out: in a query of one table, a column inside a subquery would be taken for the subquery's own.
const personOfRow = sql`"recipients"."id"`;
const documentOfRow = sql`"documents"."id"`;

/**
 * Whether there is a grant between this person, by themselves or along with everyone at their
 * domain, and this document, given or of the row, that stands so.
 */
function held(recipient: RecipientId | SQL, document: DocumentId | SQL, condition: SQL): SQL {
  const along = sql`held.recipient_id = (SELECT everyone.id FROM recipients AS someone
    JOIN recipients AS everyone ON everyone.address = substr(someone.address,
    instr(someone.address, '@')) WHERE someone.id = ${recipient})
    AND NOT EXISTS (SELECT 1 FROM grants AS own WHERE own.dispatch_id = held.dispatch_id
    AND own.document_id = held.document_id AND own.recipient_id = ${recipient})`;
  return sql`EXISTS (SELECT 1 FROM grants AS held
    JOIN documents AS paper ON paper.id = held.document_id WHERE held.document_id = ${document}
    AND (held.recipient_id = ${recipient} OR ${along}) AND ${condition})`;
}

/** A grant that can be opened now or later. */
function counts(now: number): SQL {
  return sql`held.revoked_at IS NULL AND ${notEnded('held', 'paper', now)}`;
}

const wasRevoked = sql`held.revoked_at IS NOT NULL`;
const wasNot = sql`held.revoked_at IS NULL`;

/**
 * Live documents on which somebody has no grant that can be opened now or later, the newest first.
 *
 * @param ownedBy only what this member of staff answers for; absent: all
 */
export async function documentsLackedBy(
  db: Reading,
  recipient: RecipientId,
  { text, ownedBy }: { readonly text: string; readonly ownedBy?: StaffId | undefined },
  now: number,
  limit: number,
) {
  const where = and(
    isNull(documents.revokedAt),
    isNotNull(versions.wrappedKey),
    sql`NOT ${held(recipient, documentOfRow, counts(now))}`,
    ownedBy === undefined
      ? undefined
      : or(eq(documents.ownerId, ownedBy), eq(documents.deputyId, ownedBy)),
    text === '' ? undefined : holding(text, documents.title, documents.reference),
  );
  const from = () =>
    db
      .select({
        id: documents.id,
        reference: documents.reference,
        title: documents.title,
        marking: markings.name,
        revoked: sql<number>`${held(recipient, documentOfRow, wasRevoked)}`,
        expired: sql<number>`${held(recipient, documentOfRow, wasNot)}`,
      })
      .from(documents)
      .innerJoin(versions, eq(versions.id, documents.versionId))
      .leftJoin(markings, eq(markings.id, documents.markingId));
  const [rows, [counted]] = await Promise.all([
    from().where(where).orderBy(desc(documents.createdAt), desc(documents.id)).limit(limit),
    db
      .select({ total: sql<number>`count(*)` })
      .from(documents)
      .innerJoin(versions, eq(versions.id, documents.versionId))
      .where(where),
  ]);
  return { rows, total: counted?.total ?? 0 };
}

/**
 * People who are not blocked and have no grant on a document that can be opened now or later, by
 * organisation and name.
 */
export async function peopleLacking(
  db: Reading,
  document: DocumentId,
  text: string,
  now: number,
  limit: number,
) {
  const where = and(
    eq(recipients.kind, 'person'),
    eq(recipients.blocked, false),
    sql`NOT ${held(personOfRow, document, counts(now))}`,
    text === ''
      ? undefined
      : holding(text, recipients.name, recipients.address, recipients.organisation),
  );
  const [rows, total] = await Promise.all([
    db
      .select({
        id: recipients.id,
        name: recipients.name,
        address: recipients.address,
        organisation: recipients.organisation,
        revoked: sql<number>`${held(personOfRow, document, wasRevoked)}`,
        expired: sql<number>`${held(personOfRow, document, wasNot)}`,
      })
      .from(recipients)
      .where(where)
      .orderBy(recipients.organisation, recipients.name, recipients.address)
      .limit(limit),
    db.$count(recipients, where),
  ]);
  return { rows, total };
}
