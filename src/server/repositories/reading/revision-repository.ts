import 'server-only';
import { and, count, desc, eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { DocumentId, RecipientId, RevisionId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { revisions } from '@/server/db/schema/reading';

/** The version that was changed. */
const changed = alias(versions, 'changed');

export async function insertRevision(
  tx: Transaction,
  row: typeof revisions.$inferInsert,
): Promise<void> {
  await tx.insert(revisions).values(row);
}

/** Changed files of a document, the newest first: all, or those of one person. */
export async function revisionsOf(
  db: Reading | Transaction,
  document: DocumentId,
  recipient?: RecipientId,
) {
  return db
    .select({
      revision: revisions,
      version: versions,
      recipient: recipients,
      document: documents,
      basedOn: { number: changed.number, pages: changed.pages },
    })
    .from(revisions)
    .innerJoin(versions, eq(versions.id, revisions.versionId))
    .innerJoin(changed, eq(changed.id, revisions.basedOn))
    .innerJoin(documents, eq(documents.id, revisions.documentId))
    .innerJoin(recipients, eq(recipients.id, revisions.recipientId))
    .where(
      and(
        eq(revisions.documentId, document),
        recipient === undefined ? undefined : eq(revisions.recipientId, recipient),
      ),
    )
    .orderBy(desc(revisions.sentAt), desc(versions.number));
}

/** How many changed files wait for an answer on one document: of all, or of one person. */
export async function waitingRevisions(
  db: Reading | Transaction,
  document: DocumentId,
  recipient?: RecipientId,
): Promise<number> {
  const [row] = await db
    .select({ waiting: count() })
    .from(revisions)
    .where(
      and(
        eq(revisions.documentId, document),
        recipient === undefined ? undefined : eq(revisions.recipientId, recipient),
        eq(revisions.state, 'waiting'),
      ),
    );
  return row?.waiting ?? 0;
}

export async function setRevisionAnswer(
  tx: Transaction,
  id: RevisionId,
  answer: Pick<typeof revisions.$inferInsert, 'state' | 'answer' | 'answeredBy' | 'answeredAt'>,
): Promise<void> {
  await tx.update(revisions).set(answer).where(eq(revisions.id, id));
}
