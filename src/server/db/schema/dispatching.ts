import type { Watermark } from '@/core/watermark/layers';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type {
  ConsentId,
  DispatchId,
  DraftId,
  HeldId,
  StaffId,
  TermsId,
  TextId,
} from '@/core/base/ids';
import type { DeliveryForm } from '@/core/policy/delivery';
import type { Json } from '@/core/ledger/canonical';
import type { DraftBody } from '@/core/compose/draft';
import type { SavedTerms } from '@/core/policy/saved-terms';
import { staff } from '@/server/db/schema/staff';
import { seal } from '@/server/db/schema/seal-column';

export const dispatches = sqliteTable('dispatches', {
  id: text().$type<DispatchId>().primaryKey(),
  reference: text().notNull().unique(),
  subject: text().notNull(),
  note: text().notNull(),
  /** Whether the note stands in the mail, or only behind the link. */
  noteInMail: integer({ mode: 'boolean' }).notNull().default(true),
  watermark: text({ mode: 'json' }).$type<Watermark>().notNull(),
  /** Whether Embargo mailed the links, or the sender carried them. */
  delivery: text().$type<'mail' | 'by-hand'>().notNull().default('mail'),
  /** What is handed over: a link to read by, the document in a protected file, or both. */
  form: text().$type<DeliveryForm>().notNull().default('link'),
  /** Whether a protected file's cover page names the document. */
  titleOnCover: integer({ mode: 'boolean' }).notNull().default(false),
  /** Why it went out as it did, where that has to be said. */
  reason: text().notNull().default(''),
  sentBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  sentAt: integer().notNull(),
  seal: seal(),
});

/** A half-made dispatch, as its maker left it. */
export const drafts = sqliteTable(
  'drafts',
  {
    id: text().$type<DraftId>().primaryKey(),
    staffId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    body: text({ mode: 'json' }).$type<DraftBody>().notNull(),
    /** Counts changes. */
    revision: integer().notNull().default(1),
    updatedAt: integer().notNull(),
  },
  (table) => [index('drafts_staff').on(table.staffId, table.updatedAt)],
);

/**
 * A dispatch that is held back, or is to leave later. It is written here whole, so that it leaves
 * although the server was stopped meanwhile.
 */
export const heldDispatches = sqliteTable(
  'held_dispatches',
  {
    id: text().$type<HeldId>().primaryKey(),
    staffId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    /** The dispatch as it was asked for. */
    body: text({ mode: 'json' }).$type<Json>().notNull(),
    /** What it was composed in, for anyone who stops it; null: it was not composed on a page. */
    draft: text({ mode: 'json' }).$type<DraftBody>(),
    leavesAt: integer().notNull(),
    /** The agreement of a second person by which it may leave; null: it needs none. */
    consentId: text().$type<ConsentId>(),
    state: text().$type<'held' | 'left' | 'stopped' | 'failed'>().notNull().default('held'),
    /** Why it could not leave. */
    problem: text(),
    createdAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [index('held_state').on(table.state, table.leavesAt)],
);

/** Messages kept under a name, to be chosen from a list. */
export const savedTexts = sqliteTable('saved_texts', {
  id: text().$type<TextId>().primaryKey(),
  name: text().notNull().unique(),
  subject: text().notNull(),
  note: text().notNull(),
  changedBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  changedAt: integer().notNull(),
});

/** Terms kept under a name, to be chosen from a list. */
export const savedTerms = sqliteTable('saved_terms', {
  id: text().$type<TermsId>().primaryKey(),
  name: text().notNull().unique(),
  body: text({ mode: 'json' }).$type<SavedTerms>().notNull(),
  /** Counts changes. */
  version: integer().notNull().default(1),
  changedBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  changedAt: integer().notNull(),
});
