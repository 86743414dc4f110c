import 'server-only';
import { newId, type DocumentId, type VersionId } from '@/core/base/ids';
import type {
  AnswerCommentInput,
  DocumentComments,
  SeenByInput,
  StaffCommentInput,
} from '@/contracts/comments';
import {
  changeComment,
  commentsOn,
  findComment,
  insertComment,
  setCommentsSeenBy,
} from '@/server/repositories/reading/comment-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record, recordAlone } from '@/server/services/base/record';
import { makerOf, viewOf, type CommentRow } from '@/server/services/comments/comment-views';
import { needOwnDocument } from '@/server/services/documents/own-document';
import { payloadKeyOf, sealedPages } from '@/server/services/documents/sealed-source';
import { isBy } from '@/core/comments/comment';
import { sealComment } from '@/server/vault/comment-cipher';

const needOwn = (deps: Pick<Deps, 'db'>, actor: StaffActor, id: DocumentId) =>
  needOwnDocument(deps, actor, id, 'comments-of-others');

type Version = CommentRow['version'];

/** The key of a version's content; null: it is destroyed. Taking it is recorded. */
async function keyFor(deps: Deps, actor: StaffActor, version: Version): Promise<Uint8Array | null> {
  const { id, wrappedKey, keyGeneration, documentId } = version;
  if (wrappedKey === null) return null;
  const fileKey = deps.vault.unwrap({ wrapped: wrappedKey, generation: keyGeneration }, id);
  const key = payloadKeyOf(deps, sealedPages(version), fileKey);
  await recordAlone(deps, {
    action: 'key.unwrapped',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    document: documentId,
    version: id,
    details: { for: 'comments' },
  });
  return key;
}

/** All comments of a document, for those who answer for it: they stay when access has ended. */
export async function documentComments(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<DocumentComments> {
  const { document } = await needOwn(deps, actor, id);
  const rows = await commentsOn(deps.db.read, id);
  const versions = new Map<VersionId, Version>(rows.map(({ version }) => [version.id, version]));
  const keys = new Map<VersionId, Uint8Array | null>();
  for (const version of versions.values()) keys.set(version.id, await keyFor(deps, actor, version));
  return {
    seenBy: document.commentsSeenBy,
    comments: rows.map((row) =>
      viewOf(row, { kind: 'staff', id: actor.id }, keys.get(row.version.id) ?? null),
    ),
  };
}

/** The comment and its version, where it is one of the document's. @throws ServiceError `NOT_FOUND` */
async function needComment(
  deps: Pick<Deps, 'db'>,
  id: DocumentId,
  comment: CommentRow['comment']['id'],
): Promise<CommentRow> {
  const rows = await commentsOn(deps.db.read, id);
  const row = rows.find((each) => each.comment.id === comment);
  if (row === undefined) throw new ServiceError('comment-gone');
  return row;
}

/** Answers a comment of a recipient, or of a colleague. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function answerComment(
  deps: Deps,
  actor: StaffActor,
  { id, answers, text }: AnswerCommentInput,
): Promise<DocumentComments> {
  await needOwn(deps, actor, id);
  const { comment: asked, version } = await needComment(deps, id, answers);
  const key = await keyFor(deps, actor, version);
  if (key === null) throw new ServiceError('key-destroyed');
  const comment = newId('comment', deps.random);
  const now = deps.clock.now();
  const thread = asked.answers ?? asked.id;
  await deps.db.write(async (tx) => {
    await insertComment(tx, {
      id: comment,
      documentId: id,
      versionId: version.id,
      page: asked.page,
      place: asked.place,
      answers: thread,
      staffId: actor.id,
      body: sealComment(key, comment, text),
      madeAt: now,
    });
    await record(deps, tx, {
      action: 'comment.made',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      version: version.id,
      ...(asked.recipientId === null ? {} : { recipient: asked.recipientId }),
      details: { comment, page: asked.page, answers: thread },
    });
  });
  return documentComments(deps, actor, { id });
}

/**
 * Settles a thread, whoever began it, or changes or removes what one said oneself.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function changeCommentAsStaff(
  deps: Deps,
  actor: StaffActor,
  { id, comment, change }: StaffCommentInput,
): Promise<DocumentComments> {
  await needOwn(deps, actor, id);
  const { version } = await needComment(deps, id, comment);
  const key = 'text' in change ? await keyFor(deps, actor, version) : null;
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const row = await findComment(tx, comment);
    if (row === null) throw new ServiceError('comment-gone');
    if (!('resolved' in change) && !isBy(makerOf(row), 'staff', actor.id))
      throw new ServiceError('comment-of-others');
    if ('resolved' in change)
      await changeComment(tx, comment, { resolvedAt: change.resolved ? now : null });
    else if ('removed' in change) await changeComment(tx, comment, { removedAt: now });
    else if (key === null) throw new ServiceError('key-destroyed');
    else
      await changeComment(tx, comment, {
        body: sealComment(key, comment, change.text),
        changedAt: now,
      });
    await record(deps, tx, {
      action: 'comment.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      version: version.id,
      details: { comment, change: Object.keys(change).join() },
    });
  });
  return documentComments(deps, actor, { id });
}

/** Chooses who sees the comments of a document. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function chooseSeenBy(
  deps: Deps,
  actor: StaffActor,
  { id, seenBy }: SeenByInput,
): Promise<DocumentComments> {
  await needOwn(deps, actor, id);
  await deps.db.write(async (tx) => {
    await setCommentsSeenBy(tx, id, seenBy);
    await record(deps, tx, {
      action: 'comments.shared',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      document: id,
      details: { seenBy },
    });
  });
  return documentComments(deps, actor, { id });
}
