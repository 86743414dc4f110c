import 'server-only';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { utf8 } from '@/core/base/bytes';
import type {
  AcceptNoticeInput,
  NoticeAsked,
  NoticeView,
  PutNoticeInput,
} from '@/contracts/reader-notice';
import type { ReaderNotice } from '@/core/message/reader-notice';
import type { Transaction } from '@/server/db/database';
import {
  countAccepted,
  hasAccepted,
  insertAcceptance,
  insertNotice,
  newestNotice,
} from '@/server/repositories/reading/notice-acceptance';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { hasBeenSent } from '@/server/repositories/reading/sent-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { actorOf, record, whereabouts } from '@/server/services/base/record';

/** What stands for a wording in the ledger: its words can be held against it, and are not in it. */
function digestOf(text: string): string {
  return bytesToHex(sha256(utf8(text)));
}

/** The notice that somebody has yet to accept before they open anything; null: none. */
export async function noticeDue(tx: Transaction, address: string): Promise<ReaderNotice | null> {
  const notice = await newestNotice(tx);
  if (Object.keys(notice.texts).length === 0) return null;
  return (await hasAccepted(tx, address, notice.version)) ? null : notice;
}

/** The notice, for somebody who was sent something. @throws ServiceError `NOT_FOUND` for anybody else */
export async function readNotice(deps: Pick<Deps, 'db'>, actor: ReaderActor): Promise<NoticeAsked> {
  if (!(await hasBeenSent(deps.db.read, actor.address))) throw new ServiceError('not-sent-here');
  const organisation = await findOrganisation(deps.db.read);
  return { ...(await newestNotice(deps.db.read)), organisation: organisation?.name ?? '' };
}

/** The notice for the screen, with how many have accepted it as it is worded now. */
export async function viewNotice(deps: Pick<Deps, 'db'>): Promise<NoticeView> {
  const notice = await newestNotice(deps.db.read);
  return { ...notice, accepted: await countAccepted(deps.db.read, notice.version) };
}

/**
 * Words the notice anew. Every wording is kept; whoever accepted an earlier one is asked again.
 * With no text at all nobody is asked.
 */
export async function putNotice(
  deps: Deps,
  actor: StaffActor,
  { texts }: PutNoticeInput,
): Promise<NoticeView> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const before = await newestNotice(tx);
    if (JSON.stringify(before.texts) === JSON.stringify(texts)) return;
    const version = before.version + 1;
    await insertNotice(tx, { version, texts, madeBy: actor.id, createdAt: now });
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: actorOf(actor),
      occurredAt: now,
      details: {
        notice: version,
        texts: Object.fromEntries(
          Object.entries(texts).map(([language, text]) => [language, digestOf(text)]),
        ),
      },
    });
  });
  return viewNotice(deps);
}

/**
 * Keeps that somebody accepted the notice: which wording, in which language, when and on which device.
 *
 * @throws ServiceError `CONFLICT` where it was worded anew meanwhile, or never in that language
 */
export async function acceptNotice(
  deps: Deps,
  actor: ReaderActor,
  { version, language }: AcceptNoticeInput,
): Promise<Record<string, never>> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const notice = await newestNotice(tx);
    const text = notice.texts[language];
    if (notice.version !== version || text === undefined) throw new ServiceError('notice-changed');
    const isNew = await insertAcceptance(tx, {
      address: actor.address,
      version,
      language,
      deviceId: actor.device,
      acceptedAt: now,
    });
    if (!isNew) return;
    const recipient = await findRecipientByAddress(tx, actor.address);
    await record(deps, tx, {
      action: 'notice.accepted',
      outcome: 'done',
      actor: actorOf({ ...actor, recipient: recipient?.id ?? null }),
      occurredAt: now,
      device: actor.device,
      ...(recipient === null ? {} : { recipient: recipient.id }),
      details: { version, language, text: digestOf(text) },
      personal: { address: actor.address, ...whereabouts(deps, actor.from) },
    });
  });
  return {};
}
