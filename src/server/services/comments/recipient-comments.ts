import 'server-only';
import { newId, type LicenceId } from '@/core/base/ids';
import { isBy, seenByRecipient } from '@/core/comments/comment';
import type { ChangeCommentInput, CommentInput, CommentView } from '@/contracts/comments';
import type { Transaction } from '@/server/db/database';
import {
  changeComment,
  commentsOn,
  countComments,
  findComment,
  insertComment,
} from '@/server/repositories/reading/comment-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { makerOf, viewOf, type CommentRow } from '@/server/services/comments/comment-views';
import {
  aboutOpen,
  decideAgain,
  needLicence,
  needKey,
  recordWithheld,
  type Opened,
  type Refused,
} from '@/server/services/reading/open-licence';
import { sealComment } from '@/server/vault/comment-cipher';

/** Comments that one person may have on one document. */
const MOST_COMMENTS = 500;

/** What this person sees of the comments on the version they have open. */
function seenIn(rows: readonly CommentRow[], { licence, document, version }: Opened): CommentRow[] {
  const facts = rows
    .filter((row) => row.version.id === version.id)
    .map((row) => ({
      row,
      id: row.comment.id,
      answers: row.comment.answers,
      maker: makerOf(row.comment),
    }));
  return seenByRecipient(facts, licence.recipientId, document.commentsSeenBy).map(({ row }) => row);
}

async function viewsFor(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
): Promise<readonly CommentView[]> {
  const key = await needKey(deps, actor, opened);
  const rows = seenIn(await commentsOn(deps.db.read, opened.document.id), opened);
  return rows.map((row) => viewOf(row, { kind: 'recipient', id: opened.licence.recipientId }, key));
}

/** The comments that a reader sees: their own with what was answered, and others where the owner chose so. */
export async function readComments(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
): Promise<{ readonly comments: readonly CommentView[] } | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return decision;
  return { comments: await viewsFor(deps, actor, opened) };
}

/** The thread that is answered, where this person sees it. @throws ServiceError `NOT_FOUND` */
async function needThread(
  tx: Transaction,
  opened: Opened,
  answers: CommentInput['answers'],
): Promise<CommentRow['comment'] | null> {
  if (answers === null) return null;
  const seen = seenIn(await commentsOn(tx, opened.document.id), opened);
  const thread = seen.find(({ comment }) => comment.id === answers && comment.answers === null);
  if (thread === undefined) throw new ServiceError('no-comment');
  return thread.comment;
}

/** Whether this person may have one more on the document. */
export async function hasRoomForComment(
  tx: Transaction,
  { document, licence }: Opened,
): Promise<boolean> {
  return (await countComments(tx, document.id, licence.recipientId)) < MOST_COMMENTS;
}

/**
 * Puts a remark on a page, or answers one. What it says is sealed under the key of the version.
 *
 * @throws ServiceError `INVALID`, `NOT_FOUND`, `TOO_MANY`
 */
export async function makeComment(
  deps: Deps,
  actor: ReaderActor,
  { licence, page, place, text, answers }: CommentInput,
): Promise<{ readonly comments: readonly CommentView[] } | Refused> {
  const opened = await needLicence(deps, actor, licence);
  if (page > opened.version.pages) throw new ServiceError('no-such-pages');
  const wait = await deps.limits.comments(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const key = await needKey(deps, actor, opened);
  const id = newId('comment', deps.random);
  const now = deps.clock.now();
  const refused = await deps.db.write(async (tx) => {
    const decision = await decideAgain(deps, tx, actor, opened, 'comment');
    if (decision.outcome === 'refused') return decision;
    if (!(await hasRoomForComment(tx, opened))) throw new ServiceError('comments-full');
    const thread = await needThread(tx, opened, answers);
    const at = { page: thread?.page ?? page, place: thread?.place ?? place };
    await insertComment(tx, {
      id,
      documentId: opened.document.id,
      versionId: opened.version.id,
      ...at,
      answers,
      recipientId: opened.licence.recipientId,
      body: sealComment(key, id, text),
      madeAt: now,
    });
    await record(deps, tx, {
      action: 'comment.made',
      outcome: 'done',
      ...aboutOpen(opened, actor, deps),
      details: { comment: id, page: at.page, ...(answers === null ? {} : { answers }) },
    });
    return null;
  });
  if (refused !== null) return recordWithheld(deps, actor, opened, 'comment', refused);
  return { comments: await viewsFor(deps, actor, opened) };
}

/** What a change comes to in the row. */
function changed(
  change: ChangeCommentInput['change'],
  id: CommentRow['comment']['id'],
  key: Uint8Array,
  now: number,
) {
  if ('text' in change) return { body: sealComment(key, id, change.text), changedAt: now };
  if ('resolved' in change) return { resolvedAt: change.resolved ? now : null };
  return { removedAt: now };
}

/**
 * Changes, settles or removes one's own comment. @throws ServiceError `NOT_FOUND`, also of anybody
 * else's
 */
export async function changeOwnComment(
  deps: Deps,
  actor: ReaderActor,
  { licence, comment: id, change }: ChangeCommentInput,
): Promise<{ readonly comments: readonly CommentView[] } | Refused> {
  const opened = await needLicence(deps, actor, licence);
  const key = await needKey(deps, actor, opened);
  const refused = await deps.db.write(async (tx) => {
    const decision = await decideAgain(deps, tx, actor, opened, 'comment');
    if (decision.outcome === 'refused') return decision;
    const comment = await findComment(tx, id);
    if (
      comment?.versionId !== opened.version.id ||
      !isBy(makerOf(comment), 'recipient', opened.licence.recipientId)
    )
      throw new ServiceError('no-comment');
    await changeComment(tx, id, changed(change, id, key, deps.clock.now()));
    await record(deps, tx, {
      action: 'comment.changed',
      outcome: 'done',
      ...aboutOpen(opened, actor, deps),
      details: { comment: id, change: Object.keys(change).join() },
    });
    return null;
  });
  if (refused !== null) return recordWithheld(deps, actor, opened, 'comment', refused);
  return { comments: await viewsFor(deps, actor, opened) };
}
