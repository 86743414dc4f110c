import { and, eq } from 'drizzle-orm';
import type { Id } from '@/core/base/ids';
import type { Clock } from '@/server/clock/clock';
import type { Database } from '@/server/db/database';
import { closedMailboxes, mailroom } from '@/server/db/schema/mailing';
import { BEGINNING_BYTES, type MailInbox } from '@/server/mail/inbox';
import type { Mail, Mailer } from '@/server/mail/mailer';
import { toMime } from '@/server/mail/mime';
import { returnedReport } from '@/server/mail/returned-report';

function bareAddress(from: string): string {
  return /<([^>]+)>/.exec(from)?.[1] ?? from;
}

/**
 * The demo's mail server: keeps what it is handed, as MIME, once each. What is for a mailbox that
 * was closed comes back as a delivery report.
 */
export function createMailroom(db: Database, from: string, clock: Clock): Mailer {
  const keep = (row: Omit<typeof mailroom.$inferInsert, 'receivedAt'>) =>
    db.write(async (tx) => {
      await tx
        .insert(mailroom)
        .values({ ...row, receivedAt: clock.now() })
        .onConflictDoNothing();
    });
  const giveBack = async (mail: Mail): Promise<void> => {
    const own = bareAddress(from);
    await keep({
      id: `${mail.id}.returned` as Id<'message'>,
      toAddress: own,
      fromAddress: `postmaster@mail.${mail.to.slice(mail.to.lastIndexOf('@') + 1)}`,
      subject: 'Your message could not be delivered',
      raw: returnedReport(mail, own, new Date(clock.now())),
    });
  };
  return {
    close: () => undefined,
    deliver: async (mail) => {
      const isHere = eq(closedMailboxes.address, mail.to);
      if ((await db.read.$count(closedMailboxes, isHere)) > 0) return giveBack(mail);
      await keep({
        id: mail.id as Id<'message'>,
        toAddress: mail.to,
        fromAddress: from,
        subject: mail.subject,
        raw: await toMime(mail, from, new Date(clock.now())),
      });
    },
  };
}

/** What came back to this product by the demo's mail server. */
export function createMailroomInbox(db: Database, from: string): MailInbox {
  return {
    take: async (each) => {
      const cameBack = await db.read
        .select({ id: mailroom.id, raw: mailroom.raw })
        .from(mailroom)
        .where(and(eq(mailroom.toAddress, bareAddress(from)), eq(mailroom.taken, false)))
        .orderBy(mailroom.receivedAt);
      for (const { id, raw } of cameBack) {
        const beginning = new TextEncoder().encode(raw).subarray(0, BEGINNING_BYTES);
        if ((await each(beginning)) === 'later') continue;
        await db.write(async (tx) => {
          await tx.update(mailroom).set({ taken: true }).where(eq(mailroom.id, id));
        });
      }
    },
  };
}
