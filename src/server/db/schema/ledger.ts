import { sql } from 'drizzle-orm';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { Kind } from '@/core/insight/kinds';
import type { Outcome } from '@/core/ledger/entry';

const fromBody = (member: string) => sql.raw(`json_extract(body, '$.${member}')`);

/**
 * The ledger. `body` is the canonical text that was hashed; every other column is computed from it
 * by the database, so that what a list shows cannot differ from what the chain proves.
 */
export const ledgerEntries = sqliteTable(
  'ledger_entries',
  {
    sequence: integer().primaryKey(),
    body: text().notNull(),
    hash: text().notNull(),
    occurredAt: text().generatedAlwaysAs(fromBody('occurredAt'), { mode: 'stored' }),
    action: text().generatedAlwaysAs(fromBody('action'), { mode: 'stored' }),
    outcome: text().generatedAlwaysAs(fromBody('outcome'), { mode: 'stored' }),
    documentId: text().generatedAlwaysAs(fromBody('document'), { mode: 'stored' }),
    recipientId: text().generatedAlwaysAs(fromBody('recipient'), { mode: 'stored' }),
    dispatchId: text().generatedAlwaysAs(fromBody('dispatch'), { mode: 'stored' }),
    grantId: text().generatedAlwaysAs(fromBody('grant'), { mode: 'stored' }),
    reason: text().generatedAlwaysAs(fromBody('reason'), { mode: 'virtual' }),
    actorId: text().generatedAlwaysAs(fromBody('actor.id'), { mode: 'virtual' }),
    deviceId: text().generatedAlwaysAs(fromBody('device'), { mode: 'virtual' }),
    versionId: text().generatedAlwaysAs(fromBody('version'), { mode: 'virtual' }),
    licenceId: text().generatedAlwaysAs(fromBody('licence'), { mode: 'virtual' }),
    /** Whose link it was, where somebody else came by it. */
    linkOf: text().generatedAlwaysAs(fromBody('details.linkOf'), { mode: 'virtual' }),
  },
  (table) => [
    index('ledger_document').on(table.documentId, table.sequence),
    index('ledger_recipient').on(table.recipientId, table.sequence),
    index('ledger_outcome').on(table.outcome, table.sequence),
    index('ledger_dispatch').on(table.dispatchId, table.sequence),
    index('ledger_occurred').on(table.occurredAt),
    index('ledger_action').on(table.action, table.sequence),
    index('ledger_actor')
      .on(table.actorId, table.sequence)
      .where(sql`actor_id IS NOT NULL`),
    index('ledger_device')
      .on(table.deviceId, table.sequence)
      .where(sql`device_id IS NOT NULL`),
    index('ledger_version')
      .on(table.versionId, table.sequence)
      .where(sql`version_id IS NOT NULL`),
    index('ledger_licence')
      .on(table.licenceId, table.action)
      .where(sql`licence_id IS NOT NULL`),
    index('ledger_link_of')
      .on(table.linkOf, table.sequence)
      .where(sql`link_of IS NOT NULL`),
    // Few entries have one, and those are looked for.
    index('ledger_reason')
      .on(table.reason, table.sequence)
      .where(sql`reason IS NOT NULL`),
  ],
);

/** Personal values and their salts; erasing a row leaves the chain whole. */
export const ledgerPersonal = sqliteTable(
  'ledger_personal',
  {
    sequence: integer()
      .notNull()
      .references(() => ledgerEntries.sequence),
    field: text().notNull(),
    salt: blob({ mode: 'buffer' }).notNull(),
    value: text().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.sequence, table.field] }),
    index('ledger_personal_value').on(table.field, table.value, table.sequence),
  ],
);

const tally = () => ({
  /** `2026-11-25`, in the organisation's zone. */
  day: text().notNull(),
  kind: text().$type<Kind>().notNull(),
  outcome: text().$type<Outcome>().notNull(),
  reason: text().notNull(),
  place: text().notNull(),
  /** The recipient's, when it happened. */
  organisation: text().notNull(),
  entries: integer().notNull(),
});

/**
 * How many entries of each kind there were on each day, kept along with the entries themselves, so
 * that a year of them is counted by reading a few rows. Empty text stands for nothing: a key has no nulls.
 */
export const ledgerDays = sqliteTable(
  'ledger_days',
  {
    ...tally(),
    /** The last entry that was counted here: anyone who holds a copy reads only what came since. */
    last: integer().notNull().default(0),
  },
  (table) => [
    primaryKey({
      columns: [
        table.day,
        table.kind,
        table.outcome,
        table.reason,
        table.place,
        table.organisation,
      ],
    }),
    index('ledger_days_last').on(table.last),
  ],
);

/** The same by document, recipient and dispatch: read only where a filter names one of them. */
export const ledgerPairs = sqliteTable(
  'ledger_pairs',
  {
    ...tally(),
    documentId: text().notNull(),
    recipientId: text().notNull(),
    dispatchId: text().notNull(),
  },
  (table) => [
    primaryKey({
      columns: [
        table.documentId,
        table.recipientId,
        table.dispatchId,
        table.day,
        table.kind,
        table.outcome,
        table.reason,
        table.place,
        table.organisation,
      ],
    }),
    index('ledger_pairs_recipient').on(table.recipientId),
    index('ledger_pairs_dispatch').on(table.dispatchId),
    // Answers who opened how often without reading anything else.
    index('ledger_pairs_opens')
      .on(table.recipientId, table.documentId, table.day, table.kind, table.entries)
      .where(sql`kind IN ('opened', 'refused')`),
  ],
);

/** The end of the chain and the right edge of the tree: one row, written with every entry. */
export const ledgerEnd = sqliteTable('ledger_end', {
  id: integer().primaryKey(),
  size: integer().notNull(),
  hash: text().notNull(),
  nodes: blob({ mode: 'buffer' }).notNull(),
  signedSize: integer().notNull(),
});

export const ledgerCheckpoints = sqliteTable('ledger_checkpoints', {
  size: integer().primaryKey(),
  text: text().notNull(),
  createdAt: integer().notNull(),
});

/** What all sealed rows of a table come to, with how far the ledger was: see `db/seals`. */
export const tableSums = sqliteTable('table_sums', {
  name: text().primaryKey(),
  sum: blob({ mode: 'buffer' }).notNull(),
  rows: integer().notNull(),
  /** The ledger's sequence at the last change. */
  sequence: integer().notNull(),
  seal: blob({ mode: 'buffer' }).notNull(),
});
