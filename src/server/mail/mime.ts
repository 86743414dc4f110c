import { Readable } from 'node:stream';
import type { SendMailOptions } from 'nodemailer';
import { mailHtml } from '@/server/mail/html';
import { framed, signed } from '@/server/mail/frame';
import type { Mail } from '@/server/mail/mailer';

/** What nodemailer takes for one of our messages. */
export function toEnvelope(mail: Mail, from: string, date: Date): SendMailOptions {
  const domain = from.replace(/^.*@/, '').replace(/>.*$/, '');
  return {
    from,
    to: mail.to,
    ...(mail.replyTo == null ? {} : { replyTo: mail.replyTo }),
    subject: mail.subject,
    text: mail.look === undefined ? mail.text : signed(mail.text, mail.look),
    html: framed(mail.html ?? mailHtml([mail.text]), mail.look),
    date,
    messageId: `<${mail.id}@${domain}>`,
    attachments: (mail.attachments ?? []).map(({ name, mediaType, read }) => ({
      filename: name,
      content: Readable.from(read()),
      contentType: mediaType,
    })),
    // RFC 3461: what comes back names the message by its id, and leaves its content out.
    dsn: { id: mail.id, return: 'headers', notify: ['failure', 'delay'], recipient: mail.to },
    headers: { 'Auto-Submitted': 'auto-generated' }, // RFC 3834: keeps out-of-office replies away
  };
}

/** The message as MIME text (RFC 5322), as it would travel. */
export async function toMime(mail: Mail, from: string, date: Date): Promise<string> {
  // Loaded with the first message, not at the start.
  const { default: MailComposer } = await import('nodemailer/lib/mail-composer');
  const built = await new MailComposer(toEnvelope(mail, from, date)).compile().build();
  return built.toString('utf8');
}
