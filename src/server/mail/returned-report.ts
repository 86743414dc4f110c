import type { Mail } from '@/server/mail/mailer';

/** What a mail server sends back for a mailbox that is closed (RFC 3464), as MIME text. */
export function returnedReport(mail: Mail, to: string, date: Date): string {
  const host = `mail.${mail.to.slice(mail.to.lastIndexOf('@') + 1)}`;
  return [
    `From: Mail delivery <postmaster@${host}>`,
    `To: ${to}`,
    `Date: ${date.toUTCString()}`,
    'Subject: Your message could not be delivered',
    `Message-ID: <${mail.id}.returned@${host}>`,
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    'Content-Type: multipart/report; report-type=delivery-status; boundary="returned"',
    '',
    '--returned',
    'Content-Type: text/plain; charset=utf-8',
    '',
    `There is no mailbox ${mail.to} here.`,
    '',
    '--returned',
    'Content-Type: message/delivery-status',
    '',
    `Reporting-MTA: dns; ${host}`,
    `Original-Envelope-Id: ${mail.id}`,
    '',
    `Final-Recipient: rfc822; ${mail.to}`,
    'Action: failed',
    'Status: 5.1.1',
    'Diagnostic-Code: smtp; 550 5.1.1 No such mailbox',
    '',
    '--returned--',
    '',
  ].join('\r\n');
}
