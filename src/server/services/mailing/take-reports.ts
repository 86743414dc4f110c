import 'server-only';
import { simpleParser } from 'mailparser';
import { parseDeliveryStatus, type RecipientStatus } from '@/core/mail/delivery-status';
import { returnedText } from '@/server/mail/failure-words';
import type { Taken } from '@/server/mail/inbox';
import {
  findMail,
  settleMail,
  type OutboxRow,
} from '@/server/repositories/mailing/mail-repository';
import type { Deps } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';

type Report = { readonly message: string; readonly status: RecipientStatus };

/** Our message's id in a Message-ID header of what is returned: for servers that know no envelope id. */
const OWN_ID = /^message-id:\s*<(msg_[0-9a-z]+)@/im;

/** The parts of a message; none where it is no mail: one that cannot be read must not hold up others. */
async function partsOf(beginning: Uint8Array) {
  try {
    const options = { keepDeliveryStatus: true };
    return (await simpleParser(Buffer.from(beginning), options)).attachments;
  } catch {
    return [];
  }
}

/** What a message says became of one of ours; `null`: it is no delivery report. */
async function reportIn(beginning: Uint8Array): Promise<Report | null> {
  const attachments = await partsOf(beginning);
  const part = attachments.find(({ contentType }) => contentType === 'message/delivery-status');
  if (part === undefined) return null;
  const found = parseDeliveryStatus(part.content.toString('utf8'));
  const [status] = found?.recipients ?? [];
  if (found === null || status === undefined) return null;
  const returned = attachments.map(({ content }) => OWN_ID.exec(content.toString('utf8'))?.[1]);
  const message = found.envelopeId ?? returned.find((id) => id !== undefined);
  return message === undefined ? null : { message, status };
}

async function noteReturned(deps: Deps, mail: OutboxRow, report: Report): Promise<Taken> {
  const { status } = report;
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const current = await findMail(tx, mail.id);
    // It came back before it was written down that it went out.
    if (current?.state === 'sending') return 'later';
    if (current?.state !== 'delivered' && current?.state !== 'unsure') return 'done';
    const lastError = returnedText(status);
    if (status.action === 'delayed') {
      await settleMail(tx, mail.id, { lastError });
      return 'done';
    }
    await settleMail(tx, mail.id, { state: 'returned', returnedAt: now, lastError });
    await record(deps, tx, {
      action: 'mail.returned',
      outcome: 'failed',
      actor: { kind: 'system', id: null },
      occurredAt: now,
      ...(mail.dispatchId === null ? {} : { dispatch: mail.dispatchId }),
      ...(mail.recipientId === null ? {} : { recipient: mail.recipientId }),
      details: { status: status.status },
      personal: { address: mail.toAddress, text: status.diagnostic.slice(0, 300) },
    });
    return 'done';
  });
}

/**
 * Takes one message that came in. A delivery report (RFC 3464) about one of ours says that it came
 * back or is late; anything else is nobody's here, and is left where it is. A report is a claim of
 * whoever sent it: it changes what is said about a message, and nothing else.
 */
export async function takeReport(deps: Deps, beginning: Uint8Array): Promise<Taken> {
  const report = await reportIn(beginning);
  if (report === null || !['failed', 'delayed'].includes(report.status.action)) return 'done';
  const mail = await findMail(deps.db.read, report.message);
  return mail === null ? 'done' : noteReturned(deps, mail, report);
}

/** Takes what came in since the last round. */
export async function takeReports(deps: Deps): Promise<void> {
  await deps.inbox?.take((beginning) => takeReport(deps, beginning));
}
