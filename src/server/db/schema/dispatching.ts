import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { DispatchId, DraftId, StaffId, TermsId } from '@/core/base/ids';
import type { DeliveryForm } from '@/core/policy/delivery';
import type { DraftBody } from '@/core/compose/draft';
import type { SavedTerms } from '@/core/policy/saved-terms';
import { staff } from '@/server/db/schema/staff';
import { seal } from '@/server/db/schema/seal-column';

export const dispatches = sqliteTable('dispatches', {
  id: text().$type<DispatchId>().primaryKey(),
  reference: text().notNull().unique(),
  subject: text().notNull(),
  note: text().notNull(),
  watermark: text().notNull(),
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
