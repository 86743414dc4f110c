import 'server-only';
import { newId, type DocumentId, type RecipientId } from '@/core/base/ids';
import type { AskInput, OwnRequest } from '@/contracts/requests';
import { isMessage, isOpen } from '@/core/policy/requests';
import { decide, type Decision, type RefusalReason } from '@/core/policy/decide';
import { askedMail } from '@/server/mail/request-mail';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { grantsOfRecipient } from '@/server/repositories/access/grant-reader';
import { findLink, findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { insertRequest, requestsOf } from '@/server/repositories/dispatching/request-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import {
  askerOf,
  circumstancesIn,
  policyFor,
  zoneOf,
} from '@/server/services/policy/document-policy';
import { mailAddressOf } from '@/server/services/base/mail-address';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** Requests about one document that one person may have waiting. */
const MOST_WAITING = 3;

/** What somebody closed for good: a right or more time would change nothing. */
const CLOSED: ReadonlySet<RefusalReason> = new Set<RefusalReason>([
  'revoked',
  'document-revoked',
  'key-destroyed',
  'recipient-blocked',
  'condition-unknown',
  'not-addressed',
]);

/** What a person asked about a document, as they see it. */
export async function ownRequests(
  deps: Pick<Deps, 'db'>,
  actor: Pick<ReaderActor, 'recipient'>,
  document: DocumentId,
): Promise<OwnRequest[]> {
  if (actor.recipient === null) return [];
  const rows = await requestsOf(deps.db.read, actor.recipient, document);
  return rows.map(asOwnRequest);
}

/** A request without what is not the asker's to see. */
export function asOwnRequest({
  id,
  right,
  until,
  reason,
  state,
  turns,
  answer,
  askedAt,
}: OwnRequest): OwnRequest {
  return { id, right, until, reason, state, turns, answer, askedAt };
}

/** @throws ServiceError where asking can change nothing, or it is held already */
function needAsksForSomething(input: AskInput, decision: Decision): void {
  if (decision.outcome === 'refused') {
    if (CLOSED.has(decision.reason) && !isMessage(input))
      throw new ServiceError('ask-in-vain', { reason: decision.reason });
    return;
  }
  const isHeld = input.right !== null && decision.rights[input.right].granted;
  if (isHeld && input.until === null) throw new ServiceError('right-held');
}

/**
 * Their grant that came with the dispatch of the link, or another one on the document; and who sent it.
 *
 * @throws ServiceError `NOT_FOUND` where the link leads nowhere, or they were never given the document
 */
async function grantAskedAbout(
  deps: Pick<Deps, 'db'>,
  recipient: RecipientId,
  { token, document }: AskInput,
) {
  const link = token === null ? null : await findLink(deps.db.read, token);
  if (token !== null && link === null) throw new ServiceError('not-sent-here');
  const grants = await grantsOfRecipient(deps.db.read, recipient, document);
  const grant = grants.find((each) => each.dispatchId === link?.dispatch.id) ?? grants.at(0);
  const sent = grant === undefined ? null : await findDispatch(deps.db.read, grant.dispatchId);
  if (grant === undefined || sent === null) throw new ServiceError('not-sent-here');
  return { grant, senderEmail: sent.senderEmail };
}

/**
 * Takes a recipient's request for a right or for more time, or their message, and tells the sender.
 *
 * @returns all that this person asked about the document
 * @throws ServiceError `NOT_FOUND` for somebody never addressed, `CONFLICT` where it waits already
 * or would change nothing, `TOO_MANY`
 */
export async function askForMore(
  deps: Deps,
  actor: ReaderActor,
  input: AskInput,
): Promise<readonly OwnRequest[]> {
  const now = deps.clock.now();
  const recipient = await findRecipientByAddress(deps.db.read, actor.address);
  const found = await findDocument(deps.db.read, input.document);
  if (recipient === null || found === null) throw new ServiceError('not-sent-here');
  const { grant, senderEmail } = await grantAskedAbout(deps, recipient.id, input);
  if (input.until !== null && input.until <= now) throw new ServiceError('asked-time-past');

  const decision = decide(await policyFor(deps, deps.db.read, found, recipient), {
    identity: 'proven',
    recipient: askerOf(recipient, recipient),
    at: circumstancesIn(deps, actor, await zoneOf(deps.db.read, recipient.zone)),
  });
  needAsksForSomething(input, decision);
  const met = decision.outcome === 'refused' ? decision.reason : null;

  const organisation = await findOrganisation(deps.db.read);
  const id = newId('request', deps.random);
  await deps.db.write(async (tx) => {
    const waiting = (await requestsOf(tx, recipient.id, input.document)).filter(({ state }) =>
      isOpen(state),
    );
    if (!isMessage(input) && waiting.some((each) => each.right === input.right && !isMessage(each)))
      throw new ServiceError('asked-before');
    if (waiting.length >= MOST_WAITING) throw new ServiceError('requests-waiting');
    await insertRequest(tx, {
      id,
      grantId: grant.id,
      recipientId: recipient.id,
      right: input.right,
      until: input.until,
      met,
      reason: input.reason,
      state: 'waiting',
      askedAt: now,
    });
    const mail = askedMail({
      who: recipient.name === '' ? recipient.address : recipient.name,
      title: found.document.title,
      ask: input,
      reason: input.reason,
      zone: organisation?.zone ?? 'UTC',
      link: `${deps.publicUrl}/today`,
    });
    await queueMail(tx, [
      {
        id: newId('message', deps.random),
        toAddress: senderEmail,
        replyTo: mailAddressOf(recipient),
        ...mail,
        state: 'waiting',
        urgent: true,
        nextAttemptAt: now,
        createdAt: now,
      },
    ]);
    await record(deps, tx, {
      action: 'request.asked',
      outcome: 'done',
      actor: { kind: 'recipient', id: recipient.id },
      occurredAt: now,
      document: input.document,
      recipient: recipient.id,
      grant: grant.id,
      dispatch: grant.dispatchId,
      device: actor.device,
      details: {
        request: id,
        right: input.right,
        until: input.until,
        ...(met === null ? {} : { met }),
      },
      personal: { text: input.reason },
    });
  });
  return ownRequests(deps, { ...actor, recipient: recipient.id }, input.document);
}
