import { z } from 'zod';
import { documentId } from '@/contracts/document';
import { licenceInput } from '@/contracts/reader';
import { isId, type CommentId } from '@/core/base/ids';
import {
  COMMENTS_SEEN_BY,
  MAX_COMMENT,
  MAX_COMMENT_BOXES,
  WHOLE_PAGE,
  type CommentPlace,
  type CommentsSeenBy,
} from '@/core/comments/comment';

const commentId = z.custom<CommentId>(
  (value) => typeof value === 'string' && isId('comment', value),
  'no such comment',
);
const share = z.number().int().min(0).max(WHOLE_PAGE);
const box = z.object({ left: share, top: share, width: share, height: share });
const place: z.ZodType<CommentPlace, CommentPlace> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('point'), left: share, top: share }),
  z.object({ kind: z.literal('area'), box }),
  z.object({ kind: z.literal('text'), boxes: z.array(box).min(1).max(MAX_COMMENT_BOXES) }),
]);
const text = z
  .string()
  .trim()
  .min(1, 'the comment says nothing')
  .max(MAX_COMMENT, `a comment has at most ${String(MAX_COMMENT)} characters`);

const remark = licenceInput.extend({ page: z.number().int().min(1), place, text });
/** A comment on a page of what is open, or an answer to one. */
export const commentInput = remark.extend({ answers: commentId.nullable().default(null) });
export type CommentInput = z.output<typeof commentInput>;
/** A comment that was made without a connection, as the device wrote it down. */
const offlineComment = remark.extend({
  /** Made by the device: handed in twice, it is there once. */
  id: commentId,
  /** By the service's clock, as far as the device could tell. */
  madeAt: z.number().int().min(0),
});
export type OfflineComment = z.output<typeof offlineComment>;
export const offlineCommentsInput = z.object({ comments: z.array(offlineComment).max(20) });
export type OfflineCommentsInput = z.output<typeof offlineCommentsInput>;
/** Comments that are on their documents now, and those that cannot be: any other is somebody else's. */
export type CommentsHandedIn = {
  readonly comments: readonly { readonly id: CommentId; readonly isTaken: boolean }[];
};
/** What is to become of one's own comment, or of a thread. */
const change = z.union([
  z.object({ text }),
  z.object({ resolved: z.boolean() }),
  z.object({ removed: z.literal(true) }),
]);
export const changeCommentInput = licenceInput.extend({ comment: commentId, change });
export type ChangeCommentInput = z.output<typeof changeCommentInput>;

export const documentCommentsInput = z.object({ id: documentId });
export const answerCommentInput = z.object({ id: documentId, answers: commentId, text });
export type AnswerCommentInput = z.output<typeof answerCommentInput>;
export const staffCommentInput = z.object({ id: documentId, comment: commentId, change });
export type StaffCommentInput = z.output<typeof staffCommentInput>;
export const seenByInput = z.object({ id: documentId, seenBy: z.enum(COMMENTS_SEEN_BY) });
export type SeenByInput = z.output<typeof seenByInput>;
export const exportCommentsInput = z.object({ id: documentId, as: z.enum(['json', 'pdf']) });
export type ExportCommentsInput = z.output<typeof exportCommentsInput>;

/** A comment as somebody sees it. */
export type CommentView = {
  readonly id: CommentId;
  readonly page: number;
  readonly version: number;
  readonly place: CommentPlace;
  readonly answers: CommentId | null;
  /** Who made it, by name, or by address where there is none. */
  readonly by: string;
  readonly byStaff: boolean;
  readonly own: boolean;
  /** Null: it cannot be read any more, because the key is destroyed. */
  readonly text: string | null;
  readonly madeAt: number;
  readonly changedAt: number | null;
  readonly resolvedAt: number | null;
};
export type DocumentComments = {
  readonly seenBy: CommentsSeenBy;
  readonly comments: readonly CommentView[];
};
