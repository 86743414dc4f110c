import 'server-only';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { CommentId, DocumentId } from '@/core/base/ids';
import type { CommentsSeenBy } from '@/core/comments/comment';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { comments } from '@/server/db/schema/reading';
import { staff } from '@/server/db/schema/staff';

/** Every comment of a document that was not removed, with who made it and the version it is on. */
export async function commentsOn(db: Reading | Transaction, document: DocumentId) {
  return db
    .select({
      comment: comments,
      version: versions,
      name: recipients.name,
      address: recipients.address,
      staffName: staff.name,
    })
    .from(comments)
    .innerJoin(versions, eq(versions.id, comments.versionId))
    .leftJoin(recipients, eq(recipients.id, comments.recipientId))
    .leftJoin(staff, eq(staff.id, comments.staffId))
    .where(and(eq(comments.documentId, document), isNull(comments.removedAt)))
    .orderBy(asc(comments.page), asc(comments.madeAt), sql`${comments}.rowid`);
}

export async function findComment(tx: Transaction, id: CommentId) {
  const [row] = await tx
    .select()
    .from(comments)
    .where(and(eq(comments.id, id), isNull(comments.removedAt)));
  return row ?? null;
}

/** Who made a comment, also of one that was removed; null: there is none of this id. */
export async function makerOfComment(tx: Transaction, id: CommentId) {
  const [row] = await tx
    .select({ recipientId: comments.recipientId })
    .from(comments)
    .where(eq(comments.id, id));
  return row ?? null;
}

/** Comments of one document by one person, to hold them to a number. */
export async function countComments(
  tx: Transaction,
  document: DocumentId,
  recipient: NonNullable<typeof comments.$inferSelect.recipientId>,
): Promise<number> {
  return tx.$count(
    comments,
    and(eq(comments.documentId, document), eq(comments.recipientId, recipient)),
  );
}

export async function insertComment(
  tx: Transaction,
  row: typeof comments.$inferInsert,
): Promise<void> {
  await tx.insert(comments).values(row);
}

export async function changeComment(
  tx: Transaction,
  id: CommentId,
  change: Partial<
    Pick<typeof comments.$inferSelect, 'body' | 'changedAt' | 'resolvedAt' | 'removedAt'>
  >,
): Promise<void> {
  await tx.update(comments).set(change).where(eq(comments.id, id));
}

export async function setCommentsSeenBy(
  tx: Transaction,
  document: DocumentId,
  commentsSeenBy: CommentsSeenBy,
): Promise<void> {
  await tx.update(documents).set({ commentsSeenBy }).where(eq(documents.id, document));
}
