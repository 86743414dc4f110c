import 'server-only';
import { MINUTE } from '@/core/base/time';
import { MailError } from '@/server/mail/smtp-mailer';
import type { OutboxRow } from '@/server/repositories/mail-repository';
import { dueMail, settleMail } from '@/server/repositories/mail-repository';
import type { Deps } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { attachedTo } from '@/server/services/protected-files';
import { record } from '@/server/services/record';

const AT_ONCE = 20;
const MAX_ATTEMPTS = 8;

/** Delivers what waits in the outbox. Message ids stay the same over every try, so that a doubled delivery shows as one. @returns how many were tried */
export async function deliverMail(deps: Deps): Promise<number> {
  if (deps.mailer === null) return 0;
  const due = await dueMail(deps.db.read, deps.clock.now(), AT_ONCE);
  for (const message of due) await deliverOne(deps, deps.mailer, message);
  return due.length;
}

async function deliverOne(deps: Deps, mailer: NonNullable<Deps['mailer']>, message: OutboxRow): Promise<void> {
  const attempts = message.attempts + 1;
  const about = { actor: { kind: 'system' as const, id: null }, ...(message.dispatchId === null ? {} : { dispatch: message.dispatchId }), ...(message.recipientId === null ? {} : { recipient: message.recipientId }), personal: { address: message.toAddress } };
  try {
    await mailer.deliver({ id: message.id, to: message.toAddress, subject: message.subject, text: message.body, attachments: await attachedTo(deps, message) });
  } catch (error) {
    // A file that cannot be made will not become one by waiting, and holds up nobody else's mail.
    if (!(error instanceof MailError || error instanceof ServiceError)) throw error;
    const now = deps.clock.now();
    const over = error instanceof ServiceError || error.code === 'MAIL_REFUSED' || attempts >= MAX_ATTEMPTS;
    await deps.db.write(async (tx) => {
      await settleMail(tx, message.id, { attempts, lastError: error.message, ...(over ? { state: 'failed' } : { nextAttemptAt: now + 2 ** attempts * MINUTE }) });
      if (over) await record(deps, tx, { action: 'mail.failed', outcome: 'failed', reason: error.code, occurredAt: now, ...about });
    });
    return;
  }
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    // What was delivered may hold a code; the outbox has no further use for it.
    await settleMail(tx, message.id, { state: 'delivered', attempts, deliveredAt: now, lastError: null, body: '' });
    await record(deps, tx, { action: 'mail.delivered', outcome: 'done', occurredAt: now, ...about });
  });
}
