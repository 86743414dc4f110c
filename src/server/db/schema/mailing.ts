import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { DispatchId, Id, RecipientId, VersionId } from '@/core/base/ids';

type MailState = 'waiting' | 'sending' | 'delivered' | 'returned' | 'failed' | 'unsure' | 'stopped';

export const outbox = sqliteTable(
  'outbox',
  {
    id: text().$type<Id<'message'>>().primaryKey(),
    dispatchId: text().$type<DispatchId>(),
    recipientId: text().$type<RecipientId>(),
    toAddress: text().notNull(),
    /** Whom an answer by mail reaches; null: nobody reads one. */
    replyTo: text(),
    subject: text().notNull(),
    /** Plain text of the message. Emptied once it was delivered: it may hold a code. */
    body: text().notNull(),
    /** The same as HTML; null: it is made from the text on delivery. */
    html: text(),
    /** Versions that travel with it, each as a protected file made when it is delivered. */
    attached: text({ mode: 'json' })
      .$type<readonly VersionId[]>()
      .notNull()
      .default(sql`'[]'`),
    /**
     * `sending`: being handed over. `unsure`: it was, when this product ended; whether it arrived
     * nobody knows.
     * `returned`: it was handed over, and came back. `stopped`: somebody kept it from going out.
     */
    state: text().$type<MailState>().notNull(),
    /** Codes and notices, which somebody waits for, go before what was dispatched. */
    urgent: integer({ mode: 'boolean' }).notNull().default(false),
    attempts: integer().notNull().default(0),
    nextAttemptAt: integer().notNull(),
    /** Why it did not go out, came back, or is late, in words. */
    lastError: text(),
    createdAt: integer().notNull(),
    deliveredAt: integer(),
    returnedAt: integer(),
  },
  (table) => [index('outbox_state').on(table.state, table.urgent, table.nextAttemptAt)],
);

/** The demo's mail server: what it was handed, as it was. */
export const mailroom = sqliteTable(
  'mailroom',
  {
    id: text().$type<Id<'message'>>().primaryKey(),
    toAddress: text().notNull(),
    fromAddress: text().notNull(),
    subject: text().notNull(),
    raw: text().notNull(),
    receivedAt: integer().notNull(),
    /** Whether what came back to this product was taken in. */
    taken: integer({ mode: 'boolean' }).notNull().default(false),
  },
  (table) => [index('mailroom_to').on(table.toAddress, table.receivedAt)],
);

/** Mailboxes of the demo's mail server from which everything comes back. */
export const closedMailboxes = sqliteTable('closed_mailboxes', { address: text().primaryKey() });
