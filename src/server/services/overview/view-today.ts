import 'server-only';
import { isInTheClear } from '@/core/policy/delivery';
import type { TodayInput, TodayPage } from '@/contracts/today';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { groupBy } from '@/core/base/group';
import { DAY, toUtcText } from '@/core/base/time';
import { seenElsewhere } from '@/core/insight/elsewhere';
import { holds, reaches } from '@/core/policy/permissions';
import { silenceOf, type Silence } from '@/core/insight/never-opened';
import {
  endingBetween,
  refusalsSince,
  undelivered,
  unopened,
} from '@/server/repositories/overview/today-repository';
import { listConsents } from '@/server/services/consents/answer-consents';
import { listRequests } from '@/server/services/requests/answer-requests';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/** How far back refusals are looked at, and how far ahead ends. */
const DAYS_BACK = 7;
const DAYS_AHEAD = 7;
const MOST = 30;

/**
 * Where the message may be why somebody never opened: those who tried were led by it, and some mail
 * is still on its way.
 */
const MAILING_HELPS: ReadonlySet<Silence> = new Set<Silence>(['silent', 'mail-bounced']);

/** Whether the links of a dispatch can be mailed again, by this member of staff. */
function mayMail(
  actor: StaffActor,
  {
    sentBy,
    delivery,
    form,
  }: Pick<Awaited<ReturnType<typeof unopened>>[number], 'sentBy' | 'delivery' | 'form'>,
): boolean {
  return (
    holds(actor.role, 'dispatch') &&
    reaches(actor, { sender: sentBy }) &&
    delivery === 'mail' &&
    !isInTheClear(form)
  );
}

/**
 * Senders work with what is theirs, and find what is others' apart; anyone who reads the whole record
 * has all of it before them.
 */
function choicesOf(actor: StaffActor): TodayPage['choices'] {
  if (!holds(actor.role, 'dispatch')) return ['all'];
  return holds(actor.role, 'read-record') ? ['all', 'own', 'others'] : ['own', 'others'];
}

/**
 * What needs somebody now: requests, refusals, ends that come near, people who never opened, mail
 * that did not arrive.
 */
export async function viewToday(
  deps: Deps,
  actor: StaffActor,
  input: TodayInput = {},
): Promise<TodayPage> {
  const choices = choicesOf(actor);
  const of =
    input.of !== undefined && choices.includes(input.of) ? input.of : (choices[0] ?? 'all');
  const whose = of === 'all' ? null : { staff: actor.id, of };
  const recorded = of !== 'others' || holds(actor.role, 'read-record');
  const now = deps.clock.now();
  const db = deps.db.read;
  const consents = holds(actor.role, 'dispatch') ? await listConsents(deps, actor) : [];
  const [requests, seen, refused, ending, unread, mail] = await Promise.all([
    listRequests(deps, actor),
    recorded ? deps.counts.seen('opened', whose) : [],
    recorded ? refusalsSince(db, toUtcText(now - DAYS_BACK * DAY), MOST, whose) : [],
    endingBetween(db, now, now + DAYS_AHEAD * DAY, whose),
    unopened(db, now, whose),
    undelivered(db, MOST, whose),
  ]);
  const silent = groupBy(
    unread.map((row) => ({
      ...row,
      why: silenceOf({ mail: row.mail, refusals: row.refusals, openSince: row.openSince }, now),
    })),
    (row) => `${row.dispatchId} ${row.why}`,
  );
  return {
    now,
    of,
    choices,
    recorded,
    warnings: holds(actor.role, 'settings') ? deps.health.list() : [],
    requests: requests.filter(({ yours }) => of === 'all' || yours === (of === 'own')),
    consents: of === 'others' ? [] : consents,
    elsewhere: seenElsewhere(seen, deps.calendar.dayOf(now - DAYS_BACK * DAY)).slice(0, MOST),
    refused: refused.map((row) => ({
      recipientId: row.recipientId as RecipientId | null,
      who: row.name == null || row.name === '' ? (row.address ?? 'not known') : row.name,
      organisation: row.organisation ?? '',
      documentId: row.documentId as DocumentId | null,
      title: row.title ?? '',
      reason: row.reason ?? '',
      times: row.times,
      last: Date.parse(row.last ?? ''),
    })),
    ending,
    silent: [...silent.values()].flatMap((rows) =>
      rows.slice(0, 1).map(({ dispatchId, reference, subject, why, ...sent }) => ({
        dispatchId,
        reference,
        subject,
        why,
        mayMail: MAILING_HELPS.has(why) && mayMail(actor, sent),
        people: rows.map(({ name, address }) => (name === '' ? address : name)),
        recipients: rows.map(({ recipientId }) => recipientId),
      })),
    ),
    undelivered: mail.map((row) => ({
      dispatchId: row.dispatchId,
      recipientId: row.recipientId,
      subject: row.subject,
      address: row.address,
      attempts: row.attempts,
      problem: row.problem ?? '',
      over: row.state === 'failed' || row.state === 'unsure' || row.state === 'returned',
      mayMail: unread.some(
        (each) =>
          each.dispatchId === row.dispatchId &&
          each.recipientId === row.recipientId &&
          mayMail(actor, each),
      ),
    })),
  };
}
