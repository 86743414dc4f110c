import type { Clock } from '@/server/clock/clock';
import type { Database } from '@/server/db/database';
import type { Id } from '@/core/base/ids';
import { mailroom } from '@/server/db/schema/mailing';
import type { Mailer } from '@/server/mail/mailer';
import { toMime } from '@/server/mail/mime';

/** The demo's mail server: keeps what it is handed, as MIME, once each. */
export function createMailroom(db: Database, from: string, clock: Clock): Mailer {
  return {
    close: () => undefined,
    deliver: async (mail) => {
      const now = clock.now();
      const raw = await toMime(mail, from, new Date(now));
      await db.write(async (tx) => {
        await tx
          .insert(mailroom)
          .values({
            id: mail.id as Id<'message'>,
            toAddress: mail.to,
            fromAddress: from,
            subject: mail.subject,
            raw,
            receivedAt: now,
          })
          .onConflictDoNothing();
      });
    },
  };
}
