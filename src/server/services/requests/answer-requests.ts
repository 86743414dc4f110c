import 'server-only';
import { subjects } from '@/server/mail/subjects';
import { newId, type DispatchId, type RequestId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import { underCeilings, type Ceiling } from '@/core/policy/ceiling';
import { reaches } from '@/core/policy/permissions';
import { answeredTerms, stateAfter } from '@/core/policy/requests';
import type { Terms } from '@/core/policy/rights';
import type { AnswerInput, RequestRow } from '@/contracts/requests';
import type { Transaction } from '@/server/db/database';
import { answeredMail } from '@/server/mail/request-mail';
import { grantsByIds, termsOf } from '@/server/repositories/access/grant-reader';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { linkOf } from '@/server/repositories/reading/reader-repository';
import {
  requestsByIds,
  settleRequest,
  waitingRequests,
  type WholeRequest,
} from '@/server/repositories/dispatching/request-repository';
import { aboutChange, changeGrant } from '@/server/services/access/change-grants';
import { languageOf } from '@/core/base/languages';
import { mailTitles } from '@/server/services/base/mail-titles';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ceilingFinder } from '@/server/services/policy/document-policy';
import { giveGrants } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { subjectNames } from '@/server/services/base/level-subjects';
import { record } from '@/server/services/base/record';

const MOST = 500;

function answerable(actor: StaffActor, { dispatch, document }: WholeRequest): boolean {
  return reaches(actor, {
    sender: dispatch.sentBy,
    owner: document.ownerId,
    deputy: document.deputyId,
  });
}

/** What of a request the ceilings over its document would take, even if all of it were given. */
function aboveCeilings(
  { request, grant }: WholeRequest,
  ceilings: readonly Ceiling[],
  nameOf: (of: Ceiling) => string | null,
): RequestRow['above'] {
  const by = (ceiling: Ceiling): string =>
    ceiling.level === 'organisation'
      ? 'the organisation'
      : `the ${ceiling.level} ${nameOf(ceiling) ?? ''}`;
  const { taken, terms, origins } = underCeilings(
    answeredTerms(termsOf(grant), { right: request.right, until: request.until, prints: null }),
    grant.givenAt,
    ceilings,
  );
  const taker = request.right === null ? undefined : taken.get(request.right);
  return {
    right: taker === undefined ? null : by(taker),
    until:
      request.until === null || terms.until === null || origins.until.from === 'grant'
        ? null
        : { at: terms.until, by: by(origins.until.ceiling) },
  };
}

/** What recipients ask for and nobody has answered; of one dispatch, where it is named. */
export async function listRequests(
  deps: Deps,
  actor: StaffActor,
  dispatch?: DispatchId,
): Promise<RequestRow[]> {
  const rows = await waitingRequests(deps.db.read, MOST, dispatch);
  const ceilingsOf = await ceilingFinder(deps.db.read);
  const nameOf = await subjectNames(
    deps.db.read,
    rows.map(({ document }) => document.id),
  );
  return rows.map((row) => {
    const { request, grant, recipient, document } = row;
    return {
      id: request.id,
      right: request.right,
      until: request.until,
      reason: request.reason,
      met: request.met,
      state: request.state,
      turns: request.turns,
      answer: request.answer,
      askedAt: request.askedAt,
      recipientId: recipient.id,
      name: recipient.name,
      address: recipient.address,
      organisation: recipient.organisation,
      documentId: document.id,
      title: document.title,
      dispatchId: row.dispatch.id,
      subject: row.dispatch.subject,
      holds: { rights: grant.rights, until: grant.untilAt, prints: grant.prints },
      mayAnswer: answerable(actor, row),
      yours: [row.dispatch.sentBy, document.ownerId, document.deputyId].includes(actor.id),
      above: aboveCeilings(row, ceilingsOf(document), nameOf),
    };
  });
}

/** What a right that is given for a while begins from: a grant of its own that only reads. */
const READS: Terms = { rights: ['read'], from: null, until: null, prints: null };

/**
 * Answers requests that are alike with one answer: gives, gives in part or for a while, or declines.
 * More time moves the end of the grant they hold; a right with an end of its own becomes a grant
 * beside it, so that the right ends and the reading goes on.
 *
 * @throws ServiceError `CONFLICT` where one was answered meanwhile: then none is; `NOT_ALLOWED`, `INVALID`
 */
export async function answerRequests(
  deps: Deps,
  actor: StaffActor,
  input: AnswerInput,
): Promise<{ readonly answered: number }> {
  const now = deps.clock.now();
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  return deps.db.write(async (tx) => {
    const rows = await needRequests(tx, actor, input.requests);
    for (const row of rows) {
      const until = input.until === 'as-asked' ? row.request.until : input.until;
      if (input.right === null && until === null && input.words === '')
        throw new ServiceError('answer-needs-sentence');
      if (until !== null && until <= now) throw new ServiceError('end-past');
      await answerOne(deps, tx, actor, row, { ...input, until }, now, zone);
    }
    return { answered: rows.length };
  });
}

/** @throws ServiceError `NOT_FOUND` where one is gone, `NOT_ALLOWED` where one is for others to answer */
export async function needRequests(
  tx: Transaction,
  actor: StaffActor,
  ids: readonly RequestId[],
): Promise<readonly WholeRequest[]> {
  const rows = await requestsByIds(tx, ids);
  if (rows.length !== new Set(ids).size) throw new ServiceError('request-gone');
  if (!rows.every((row) => answerable(actor, row))) throw new ServiceError('request-of-others');
  return rows;
}

/** An answer whose time is settled. */
type Settled = Omit<AnswerInput, 'until'> & { readonly until: number | null };

/**
 * Gives what an answer gives: a right with an end of its own beside the grant they hold, anything
 * else on that grant.
 */
async function give(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { request, grant, recipient, document, dispatch }: Omit<WholeRequest, 'sender'>,
  input: Settled,
  now: number,
): Promise<readonly LedgerEvent[]> {
  if (input.right !== null && input.until !== null && request.until === null) {
    const given = await giveGrants(
      deps,
      tx,
      actor,
      { subject: subjects.answer(document.title), watermark: dispatch.watermark },
      {
        documents: [document],
        people: [{ ...recipient, terms: answeredTerms(READS, input) }],
        now,
      },
    );
    return given.events;
  }
  // Several requests about one grant may be answered together: each starts from what the last one left.
  const [current] = await grantsByIds(tx, [grant.id]);
  if (current === undefined) return [];
  const after = await changeGrant(tx, actor, current, current.revision, {
    ...answeredTerms(termsOf(current), input),
    conditions: current.conditions,
  });
  return [aboutChange(actor, now, current, termsOf(after))];
}

async function answerOne(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { request, grant, recipient, document, dispatch }: WholeRequest,
  input: Settled,
  now: number,
  zone: string,
): Promise<void> {
  const state = stateAfter(request, input);
  if (
    !(await settleRequest(tx, request.id, {
      state,
      answer: input.words,
      answeredBy: actor.id,
      answeredAt: now,
    }))
  )
    throw new ServiceError('request-answered');
  const events: LedgerEvent[] = [
    {
      action: 'request.answered',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: document.id,
      recipient: recipient.id,
      grant: grant.id,
      dispatch: grant.dispatchId,
      details: { request: request.id, state },
      personal: { text: input.words },
    },
  ];
  if (state === 'given' || state === 'given-in-part')
    events.push(
      ...(await give(
        deps,
        tx,
        actor,
        { request, grant, recipient, document, dispatch },
        input,
        now,
      )),
    );
  await record(deps, tx, ...events);
  // Somebody who came by an open link has no address: they see the answer where they asked.
  if (recipient.kind !== 'person') return;
  const token = await linkOf(tx, dispatch.id, recipient.id);
  const language = languageOf(recipient.language);
  const mail = answeredMail({
    senderName: actor.name,
    title: (await mailTitles(tx))(document, language),
    language,
    state,
    words: input.words,
    until: input.until,
    zone: recipient.zone ?? zone,
    link: `${deps.publicUrl}/r/${token ?? ''}`,
  });
  await queueMail(tx, [
    {
      id: newId('message', deps.random),
      toAddress: recipient.address,
      replyTo: actor.email,
      ...mail,
      state: 'waiting',
      urgent: true,
      nextAttemptAt: now,
      createdAt: now,
    },
  ]);
}
