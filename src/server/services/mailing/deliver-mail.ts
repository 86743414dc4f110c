import 'server-only';
import { failureText, INTERRUPTED } from '@/server/mail/failure-words';
import { isAppError } from '@/core/base/errors';
import { MINUTE, SECOND } from '@/core/base/time';
import {
  claimMail,
  hasMailDue,
  interruptedMail,
  settleMail,
  type OutboxRow,
} from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { MailLook } from '@/server/mail/mailer';
import { readWorkSettings } from '@/server/services/base/work-settings';
import type { Deps } from '@/server/services/base/deps';
import { attachedTo } from '@/server/services/documents/protected-files';
import { record } from '@/server/services/base/record';

const MAX_ATTEMPTS = 8;
/** Messages handed over side by side: one slow server, or one slow message, holds up few others. */
const LANES = 6;
/** How long a handing over may take; a message that was not settled by then was cut off. */
const LEASE = 10 * MINUTE;
/** What was handed over is written down, however often that has to be tried: otherwise it would be sent again. */
const SETTLING_TRIES = 10;

/**
 * Delivers what waits in the outbox, until nothing that is due is left. A message is marked as
 * being handed over before it is, and nothing is handed over whose marking failed. Message ids stay
 * the same over every try, so that a doubled delivery shows as one.
 *
 * @param which codes and notices alone, which somebody waits for, or everything, those first
 * @returns how many were tried
 */
export async function deliverMail(deps: Deps, which: 'urgent' | 'all' = 'all'): Promise<number> {
  const { mailer } = deps;
  if (mailer === null) return 0;
  // Asked several times a second: a lane that found nothing would have taken its turn of the writes.
  if (!(await hasMailDue(deps.db.read, which, deps.clock.now()))) return 0;
  const lane = async (): Promise<number> => {
    for (let tried = 0; ; tried++) {
      const now = deps.clock.now();
      const message = await deps.db.writeAside((tx) => claimMail(tx, which, now, now + LEASE));
      if (message === null) return tried;
      await deliverOne(deps, mailer, message);
    }
  };
  const lanes = await Promise.allSettled(Array.from({ length: LANES }, lane));
  const failed = lanes.find((each) => each.status === 'rejected');
  if (failed !== undefined) throw failed.reason;
  return lanes.reduce((sum, each) => sum + (each.status === 'fulfilled' ? each.value : 0), 0);
}

type Settled = { readonly code: string; readonly message: string; readonly over: boolean };

/** Why a message did not go out, and whether trying again is of no use. */
function settledBy(error: unknown, attempts: number): Settled {
  const known = isAppError(error) ? error : null;
  // What the content or the mail server refuses will not become better by waiting; anything else may.
  const final = known !== null && known.code !== 'MAIL_UNREACHABLE';
  return {
    code: known?.code ?? 'NOT_MADE',
    message: failureText(known),
    over: final || attempts >= MAX_ATTEMPTS,
  };
}

/** How the organisation's mail looks now. */
async function mailLook({ db }: Pick<Deps, 'db'>): Promise<MailLook> {
  const [organisation, { mailColour, mailSignature }] = await Promise.all([
    findOrganisation(db.read),
    readWorkSettings(db.read),
  ]);
  return {
    organisation: organisation?.name ?? '',
    colour: mailColour,
    signature: mailSignature,
  };
}

async function deliverOne(
  deps: Deps,
  mailer: NonNullable<Deps['mailer']>,
  message: OutboxRow,
): Promise<void> {
  const about = {
    actor: { kind: 'system' as const, id: null },
    ...(message.dispatchId === null ? {} : { dispatch: message.dispatchId }),
    ...(message.recipientId === null ? {} : { recipient: message.recipientId }),
    personal: { address: message.toAddress },
  };
  let failure: Settled | null = null;
  try {
    await mailer.deliver({
      id: message.id,
      to: message.toAddress,
      replyTo: message.replyTo,
      subject: message.subject,
      text: message.body,
      html: message.html,
      attachments: await attachedTo(deps, message),
      look: await mailLook(deps),
    });
  } catch (error) {
    // One that cannot be made or delivered stands aside: it holds up nobody else's mail.
    failure = settledBy(error, message.attempts);
  }
  await insisting(async () => {
    const now = deps.clock.now();
    await deps.db.writeAside(async (tx) => {
      if (failure === null) {
        // What was delivered may hold a code; the outbox has no further use for it.
        await settleMail(tx, message.id, {
          state: 'delivered',
          deliveredAt: now,
          lastError: null,
          body: '',
          html: null,
        });
        await record(deps, tx, {
          action: 'mail.delivered',
          outcome: 'done',
          occurredAt: now,
          ...about,
        });
        return;
      }
      await settleMail(tx, message.id, {
        lastError: failure.message,
        ...(failure.over
          ? { state: 'failed' }
          : { state: 'waiting', nextAttemptAt: now + 2 ** message.attempts * MINUTE }),
      });
      if (failure.over)
        await record(deps, tx, {
          action: 'mail.failed',
          outcome: 'failed',
          reason: failure.code,
          occurredAt: now,
          ...about,
        });
    });
  });
}

async function insisting(settle: () => Promise<void>): Promise<void> {
  for (let tries = 1; ; tries++) {
    try {
      await settle();
      return;
    } catch (error) {
      if (tries === SETTLING_TRIES) throw error;
      await new Promise((resolve) => {
        setTimeout(resolve, Math.min(tries * SECOND, 5 * SECOND));
      });
    }
  }
}

/**
 * Settles what was being handed over when it was cut off: whether it arrived, nobody knows. A code
 * or notice goes out again, where a second one does no harm; of anything else Today says that it
 * may have arrived.
 *
 * @param atStart whether nothing can be on its way: otherwise only what has taken too long is
 * settled
 * @returns how many there were
 */
export async function settleInterrupted(
  deps: Pick<Deps, 'db' | 'clock' | 'recorder'>,
  atStart: boolean,
): Promise<number> {
  const now = deps.clock.now();
  return deps.db.writeAside(async (tx) => {
    const rows = await interruptedMail(tx, atStart ? null : now);
    for (const row of rows) {
      if (row.urgent) {
        await settleMail(tx, row.id, { state: 'waiting', nextAttemptAt: now });
        continue;
      }
      await settleMail(tx, row.id, {
        state: 'unsure',
        lastError: INTERRUPTED,
      });
      await record(deps, tx, {
        action: 'mail.failed',
        outcome: 'failed',
        reason: 'CUT_OFF',
        occurredAt: now,
        actor: { kind: 'system', id: null },
        ...(row.dispatchId === null ? {} : { dispatch: row.dispatchId }),
        ...(row.recipientId === null ? {} : { recipient: row.recipientId }),
        personal: { address: row.toAddress },
      });
    }
    return rows.length;
  });
}
