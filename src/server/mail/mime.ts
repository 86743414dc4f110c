import { Readable } from 'node:stream';
import type { SendMailOptions } from 'nodemailer';
import type { Mail } from '@/server/mail/mailer';

function escapeHtml(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}

/** The text as plain paragraphs, its links as links: nothing that a mail program would have to fetch. */
function toHtml(text: string): string {
  const paragraphs = escapeHtml(text)
    .replaceAll(/https?:\/\/[^\s<]+/g, (url) => `<a href="${url}">${url}</a>`)
    .split(/\n{2,}/);
  const html = paragraphs.map((paragraph) => `<p>${paragraph.replaceAll('\n', '<br>')}</p>`);
  return `<div style="font-family:sans-serif;font-size:15px;line-height:1.5">${html.join('')}</div>`;
}

/** What nodemailer takes for one of our messages. */
export function toEnvelope(mail: Mail, from: string, date: Date): SendMailOptions {
  const domain = from.replace(/^.*@/, '').replace(/>.*$/, '');
  return {
    from,
    to: mail.to,
    subject: mail.subject,
    text: mail.text,
    html: toHtml(mail.text),
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
