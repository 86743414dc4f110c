import 'server-only';
import type { CommentsHandedIn, OfflineComment, OfflineCommentsInput } from '@/contracts/comments';
import { readOwnLicence } from '@/core/licence/own-licence';
import { hasCode } from '@/core/base/errors';
import type { Transaction } from '@/server/db/database';
import { makerOfComment, insertComment } from '@/server/repositories/reading/comment-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { tooMany } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { hasRoomForComment } from '@/server/services/comments/recipient-comments';
import {
  aboutOpen,
  decideAgain,
  needKey,
  ownKeyedOpen,
  type Opened,
} from '@/server/services/reading/open-licence';
import { sealComment } from '@/server/vault/comment-cipher';

/** Whether a comment could be made at that time, by what was signed for the device itself. */
async function couldBeMade(
  deps: Deps,
  { licence, version }: Opened,
  { page, madeAt }: OfflineComment,
): Promise<boolean> {
  const { publicKey } = deps.recorder.signer;
  const given = licence.keyGivenAt ?? 0;
  const own = await readOwnLicence(licence.statement, publicKey, deps.publicUrl, given);
  const ends = own.offlineUntil ?? 0;
  return own.rights.includes('comment') && madeAt < ends && page <= version.pages;
}

/** The key of the content; null: it is destroyed, and nothing can be put beside the document. */
async function keyOf(deps: Deps, actor: ReaderActor, opened: Opened): Promise<Uint8Array | null> {
  try {
    return await needKey(deps, actor, opened);
  } catch (error) {
    if (hasCode(error, 'NOT_FOUND')) return null;
    throw error;
  }
}

/**
 * Puts comments that were made without a connection beside the others, with when they were made. What
 * ended meanwhile takes nothing from them; whoever is blocked adds nothing any more.
 *
 * @throws ServiceError `TOO_MANY`
 */
export async function handInComments(
  deps: Deps,
  actor: ReaderActor,
  { comments }: OfflineCommentsInput,
): Promise<CommentsHandedIn> {
  const put: CommentsHandedIn['comments'][number][] = [];
  for (const comment of comments) {
    const opened = await ownKeyedOpen(deps, actor, comment.licence);
    if (opened !== null)
      put.push({ id: comment.id, isTaken: await takeIn(deps, actor, opened, comment) });
  }
  return { comments: put };
}

/** @returns whether it is there, now or since before */
async function takeIn(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  comment: OfflineComment,
): Promise<boolean> {
  const wait = await deps.limits.comments(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  if (!(await couldBeMade(deps, opened, comment))) return false;
  const key = await keyOf(deps, actor, opened);
  if (key === null) return false;
  return deps.db.write((tx) => putIn(deps, tx, actor, opened, { ...comment, key }));
}

async function putIn(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  opened: Opened,
  { id, page, place, text, madeAt, key }: OfflineComment & { readonly key: Uint8Array },
): Promise<boolean> {
  const { licence, document, version } = opened;
  // Read inside: the same comment handed in twice at once is there once.
  const maker = await makerOfComment(tx, id);
  if (maker !== null) return maker.recipientId === licence.recipientId;
  const decision = await decideAgain(deps, tx, actor, opened, 'read');
  if (decision.outcome === 'refused' && decision.reason === 'recipient-blocked') return false;
  if (!(await hasRoomForComment(tx, opened))) return false;
  const now = deps.clock.now();
  const occurredAt = Math.min(now, Math.max(licence.openedAt, madeAt));
  await insertComment(tx, {
    id,
    documentId: document.id,
    versionId: version.id,
    page,
    place,
    answers: null,
    recipientId: licence.recipientId,
    body: sealComment(key, id, text),
    madeAt: occurredAt,
  });
  await record(deps, tx, {
    action: 'comment.made',
    outcome: 'done',
    ...aboutOpen(opened, actor, deps),
    device: licence.deviceId,
    occurredAt,
    receivedAt: now,
    details: { comment: id, page, offline: true },
  });
  return true;
}
