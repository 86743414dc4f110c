import type { Clock } from '@/server/clock/clock';
import type { Config } from '@/server/config/env';
import type { Database } from '@/server/db/database';
import type { MailInbox } from '@/server/mail/inbox';
import { createMaildirInbox } from '@/server/mail/maildir-inbox';
import type { Mailer } from '@/server/mail/mailer';
import { createMailroom, createMailroomInbox } from '@/server/mail/mailroom';
import { createSmtpMailer } from '@/server/mail/smtp-mailer';

const MAILROOM_FROM = 'Embargo at Tern & Quill <embargo@tern-quill.example>';

/** How mail goes out and where it comes back to; `null` where nobody said. */
export function mailOf(
  { mail }: Pick<Config, 'mail'>,
  db: Database,
  clock: Clock,
  demo: boolean,
): { readonly mailer: Mailer | null; readonly inbox: MailInbox | null } {
  if (mail !== null)
    return {
      mailer: createSmtpMailer(mail.url, mail.from, clock),
      inbox: mail.inbox === null ? null : createMaildirInbox(mail.inbox),
    };
  // Only a demo keeps mail where staff can read it: it holds recipients' codes.
  if (!demo) return { mailer: null, inbox: null };
  return {
    mailer: createMailroom(db, MAILROOM_FROM, clock),
    inbox: createMailroomInbox(db, MAILROOM_FROM),
  };
}
