import 'server-only';
import type { CommentView } from '@/contracts/comments';
import { isBy, type CommentMaker } from '@/core/comments/comment';
import type { commentsOn } from '@/server/repositories/reading/comment-repository';
import { openComment } from '@/server/vault/comment-cipher';

export type CommentRow = Awaited<ReturnType<typeof commentsOn>>[number];

/** Who made a comment. */
export function makerOf({ recipientId, staffId }: CommentRow['comment']): CommentMaker {
  return staffId === null
    ? { kind: 'recipient', id: recipientId ?? '' }
    : { kind: 'staff', id: staffId };
}

function nameOf({ name, address }: CommentRow): string {
  return name === null || name === '' ? (address ?? '') : name;
}

/** A comment as somebody sees it. @param key of the version's content; null: there is none any more */
export function viewOf(row: CommentRow, as: CommentMaker, key: Uint8Array | null): CommentView {
  const { comment, version } = row;
  return {
    id: comment.id,
    page: comment.page,
    version: version.number,
    place: comment.place,
    answers: comment.answers,
    by: row.staffName ?? nameOf(row),
    byStaff: comment.staffId !== null,
    own: isBy(makerOf(comment), as.kind, as.id),
    text: key === null ? null : openComment(key, comment.id, comment.body),
    madeAt: comment.madeAt,
    changedAt: comment.changedAt,
    resolvedAt: comment.resolvedAt,
  };
}
