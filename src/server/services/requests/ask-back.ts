import 'server-only';
import { newId, type RecipientId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import { isOpen, MOST_TURNS } from '@/core/policy/requests';
import type { AskBackInput, OwnRequest, ReplyInput } from '@/contracts/requests';
import type { Transaction } from '@/server/db/database';
import { askedBackMail, repliedMail } from '@/server/mail/request-mail';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { linkOf } from '@/server/repositories/reading/reader-repository';
import {
  addTurn,
  requestsByIds,
  type WholeRequest,
} from '@/server/repositories/dispatching/request-repository';
import { languageOf } from '@/core/base/languages';
import { mailTitles } from '@/server/services/base/mail-titles';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { mailAddressOf } from '@/server/services/base/mail-address';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needRequests } from '@/server/services/requests/answer-requests';
import { ownRequests } from '@/server/services/requests/ask-for-more';

/** What an entry about a request says whom and what it is about. */
function about({ request, grant, recipient, document }: WholeRequest) {
  return {
    outcome: 'done',
    document: document.id,
    recipient: recipient.id,
    grant: grant.id,
    dispatch: grant.dispatchId,
    details: { request: request.id },
  } as const;
}

async function mail(
  deps: Deps,
  tx: Transaction,
  { to, replyTo }: { readonly to: string; readonly replyTo: string | null },
  message: { readonly subject: string; readonly body: string },
  now: number,
): Promise<void> {
  await queueMail(tx, [
    {
      id: newId('message', deps.random),
      toAddress: to,
      replyTo,
      ...message,
      state: 'waiting',
      urgent: true,
      nextAttemptAt: now,
      createdAt: now,
    },
  ]);
}

/**
 * Asks those who asked for something a question before it is answered. They see it where they asked,
 * and the request waits for their reply; it can be answered all the same.
 *
 * @throws ServiceError `CONFLICT` where one was answered meanwhile or was talked over too often: then
 * nobody is asked; `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function askBack(
  deps: Deps,
  actor: StaffActor,
  input: AskBackInput,
): Promise<{ readonly asked: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const rows = await needRequests(tx, actor, input.requests);
    const titleOf = await mailTitles(tx);
    for (const row of rows) {
      const { request, recipient, document, dispatch } = row;
      if (!isOpen(request.state)) throw new ServiceError('request-answered');
      if (request.turns.length >= MOST_TURNS) throw new ServiceError('request-turns');
      await addTurn(tx, request, { by: 'staff', text: input.words, at: now });
      const entry: LedgerEvent = {
        action: 'request.asked-back',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        ...about(row),
        personal: { text: input.words },
      };
      await record(deps, tx, entry);
      // Somebody who came by an open link has no address: they see the question where they asked.
      if (recipient.kind !== 'person') continue;
      const token = await linkOf(tx, dispatch.id, recipient.id);
      const language = languageOf(recipient.language);
      const message = askedBackMail({
        senderName: actor.name,
        title: titleOf(document, language),
        words: input.words,
        language,
        link: `${deps.publicUrl}/r/${token ?? ''}`,
      });
      await mail(deps, tx, { to: recipient.address, replyTo: actor.email }, message, now);
    }
    return { asked: rows.length };
  });
}

/** Somebody's own request by its id. @throws ServiceError `NOT_FOUND` for anybody else's */
async function needOwn(
  tx: Transaction,
  recipient: RecipientId | null,
  input: ReplyInput,
): Promise<WholeRequest> {
  const [row] = await requestsByIds(tx, [input.request]);
  if (row?.recipient.id !== recipient || row.document.id !== input.document)
    throw new ServiceError('not-sent-here');
  return row;
}

/**
 * Takes what an asker replies to a question back, and tells the sender.
 *
 * @returns all that this person asked about the document
 * @throws ServiceError `NOT_FOUND` where the request is not theirs, `CONFLICT` where nobody waits for
 * a reply
 */
export async function replyToQuestion(
  deps: Deps,
  actor: ReaderActor,
  input: ReplyInput,
): Promise<readonly OwnRequest[]> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const row = await needOwn(tx, actor.recipient, input);
    const { request, recipient, document, sender } = row;
    if (request.state !== 'asked-back') throw new ServiceError('nothing-to-reply');
    await addTurn(tx, request, { by: 'asker', text: input.words, at: now });
    await record(deps, tx, {
      action: 'request.replied',
      actor: { kind: 'recipient', id: recipient.id },
      occurredAt: now,
      device: actor.device,
      ...about(row),
      personal: { text: input.words },
    });
    const message = repliedMail({
      who: recipient.name === '' ? recipient.address : recipient.name,
      title: document.title,
      words: input.words,
      link: `${deps.publicUrl}/today`,
    });
    const replyTo = mailAddressOf(recipient);
    await mail(deps, tx, { to: sender.email, replyTo }, message, now);
  });
  return ownRequests(deps, actor, input.document);
}
