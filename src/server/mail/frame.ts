import { escapeHtml } from '@/server/mail/html';
import type { MailLook } from '@/server/mail/mailer';

const INK = '#0f2b3c';
const QUIET = '#4c6270';
const FONT = 'font-family:Verdana,Geneva,sans-serif';

/**
 * A message in the frame of its organisation. Mail programs know few styles and drop style sheets,
 * so there are tables, and every element says how it looks.
 */
export function framed(html: string, look: MailLook | undefined): string {
  if (look === undefined) return html;
  const { organisation, colour, signature } = look;
  const row = (style: string, content: string) => `<tr><td style="${style}">${content}</td></tr>`;
  const name = row(
    `border-top:4px solid ${colour};padding:18px 24px 2px;${FONT};font-size:16px;font-weight:bold;color:${INK}`,
    escapeHtml(organisation),
  );
  const content = row(`padding:2px 24px 16px;color:${INK}`, html);
  const lines = escapeHtml(signature).replaceAll('\n', '<br>');
  const below =
    signature === ''
      ? ''
      : row(
          `border-top:1px solid #c9c4b2;padding:12px 24px 16px;${FONT};font-size:13px;line-height:1.5;color:${QUIET}`,
          lines,
        );
  return (
    '<!doctype html><html><head><meta charset="utf-8">' +
    '<meta name="viewport" content="width=device-width">' +
    '<meta name="color-scheme" content="light"></head>' +
    '<body style="margin:0;padding:0;background:#f7f4ea">' +
    '<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="background:#f7f4ea">' +
    '<tr><td align="center" style="padding:20px 10px">' +
    '<table role="presentation" cellpadding="0" cellspacing="0" ' +
    'style="width:100%;max-width:600px;text-align:start;background:#fffdf6;border:1px solid #c9c4b2">' +
    `${name}${content}${below}</table></td></tr></table></body></html>`
  );
}

/** The same words below a message of plain text (RFC 3676, section 4.3). */
export function signed(text: string, { signature }: MailLook): string {
  return signature === '' ? text : `${text}\n\n-- \n${signature}`;
}
