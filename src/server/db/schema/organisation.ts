import { blob, index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { Json } from '@/core/ledger/canonical';
import { seal } from '@/server/db/schema/seal-column';

export const organisation = sqliteTable('organisation', {
  id: integer().primaryKey(), // always 1: one organisation a database
  name: text().notNull(),
  zone: text().notNull(),
  /** The public half of the recovery pair, or null where the organisation chose none. */
  recoveryKey: text(),
  /** Whether destroying the keys of several documents needs a second administrator's consent. */
  twoPeople: integer({ mode: 'boolean' }).notNull().default(false),
  /** A database made as a demo stays one: the demo's powers exist nowhere else. */
  demo: integer({ mode: 'boolean' }).notNull(),
  /** What the demo's clock is ahead of the real one. */
  clockOffset: integer().notNull().default(0),
  createdAt: integer().notNull(),
  seal: seal(),
});

/** Keys of the service itself, wrapped by the master key. */
export const serviceKeys = sqliteTable('service_keys', {
  name: text().$type<'issuer' | 'hashes'>().primaryKey(),
  generation: integer().notNull(),
  /** Empty where the key has no public half. */
  publicKey: blob({ mode: 'buffer' }).notNull(),
  wrapped: blob({ mode: 'buffer' }).notNull(),
  createdAt: integer().notNull(),
  seal: seal(),
});

/** What the organisation chose about how work is done here: by name, as JSON. Nothing in it decides about access. */
export const settings = sqliteTable('settings', {
  name: text().primaryKey(),
  value: text().notNull(),
});

/** What was done once for a request that may come again, with its answer. */
export const requestsDone = sqliteTable(
  'requests_done',
  {
    key: text().primaryKey(),
    /** A hash of who asked, and for what. */
    asked: text().notNull(),
    /** Null until it was answered. */
    answer: text({ mode: 'json' }).$type<Json>(),
    doneAt: integer().notNull(),
  },
  (table) => [index('requests_done_at').on(table.doneAt)],
);
