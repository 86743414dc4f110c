import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type {
  ConsentId,
  DispatchId,
  DocumentId,
  GrantId,
  LinkId,
  RecipientId,
  RequestId,
  StaffId,
  TermsId,
} from '@/core/base/ids';
import type { RefusalReason } from '@/core/policy/decide';
import type { DraftBody } from '@/core/compose/draft';
import type { Json } from '@/core/ledger/canonical';
import type { Conditions } from '@/core/policy/conditions';
import type { ConsentKind } from '@/core/policy/consent';
import type { RequestState, Turn } from '@/core/policy/requests';
import type { Right } from '@/core/policy/rights';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';
import { seal } from '@/server/db/schema/seal-column';

export const grants = sqliteTable(
  'grants',
  {
    id: text().$type<GrantId>().primaryKey(),
    dispatchId: text()
      .$type<DispatchId>()
      .notNull()
      .references(() => dispatches.id),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    rights: text({ mode: 'json' }).$type<readonly Right[]>().notNull(),
    fromAt: integer(),
    untilAt: integer(),
    prints: integer(),
    printsMade: integer().notNull().default(0),
    /** What else must hold for it to count; null: nothing. */
    conditions: text({ mode: 'json' }).$type<Conditions>(),
    /** The saved terms it was given with, as long as nobody has changed it by itself. */
    termsId: text().$type<TermsId>(),
    /** The recipient who passed this on; null: the staff gave it. */
    passedOnBy: text().$type<RecipientId>(),
    /** The grant that this one was passed on from, or of the group, domain or link that it stands beneath. */
    parentId: text().$type<GrantId>(),
    /** Whether it changes as the one above does: until it is changed by itself. */
    follows: integer({ mode: 'boolean' }).notNull().default(false),
    /** When it was revoked because the person left the group. */
    leftAt: integer(),
    revokedAt: integer(),
    revokedBy: text().$type<StaffId>(),
    /** Counts changes, so that two people changing one grant at once do not overwrite each other unseen. */
    revision: integer().notNull().default(1),
    givenBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    givenAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [
    uniqueIndex('grants_once').on(table.dispatchId, table.documentId, table.recipientId),
    index('grants_document').on(table.documentId, table.recipientId),
    index('grants_recipient').on(table.recipientId),
    index('grants_parent')
      .on(table.parentId)
      .where(sql`parent_id IS NOT NULL`),
    index('grants_terms')
      .on(table.termsId)
      .where(sql`terms_id IS NOT NULL`),
  ],
);

/** What one administrator asked for and a second one has to agree to. */
export const consents = sqliteTable(
  'consents',
  {
    id: text().$type<ConsentId>().primaryKey(),
    /**
     * To destroy the keys of these documents, that one person is enough from now on, to send these,
     * or to mark them lower.
     */
    kind: text().$type<ConsentKind>().notNull(),
    documents: text({ mode: 'json' }).$type<readonly DocumentId[]>().notNull(),
    /** A dispatch as it was composed, or the marking wanted; null: nothing besides. */
    body: text({ mode: 'json' }).$type<Json>(),
    /** What a dispatch was composed in, for its sender where it is declined; null: nothing. */
    draft: text({ mode: 'json' }).$type<DraftBody>(),
    reason: text().notNull(),
    state: text().$type<'waiting' | 'agreed' | 'declined'>().notNull(),
    askedBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    askedAt: integer().notNull(),
    answeredBy: text()
      .$type<StaffId>()
      .references(() => staff.id),
    answeredAt: integer(),
  },
  (table) => [index('consents_state').on(table.state, table.askedAt)],
);

/** What a recipient asks of the person who answers for a grant: more time, or a right. */
export const requests = sqliteTable(
  'requests',
  {
    id: text().$type<RequestId>().primaryKey(),
    grantId: text()
      .$type<GrantId>()
      .notNull()
      .references(() => grants.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    /** The right that is asked for; null: only more time. */
    right: text().$type<Right>(),
    until: integer(),
    /** Why they could not open it when they asked; null: they could. */
    met: text().$type<RefusalReason>(),
    reason: text().notNull(),
    state: text().$type<RequestState>().notNull(),
    /** Questions back and what was replied, in their order. */
    turns: text({ mode: 'json' }).$type<readonly Turn[]>().notNull().default([]),
    /** The sentence that came with the answer. */
    answer: text().notNull().default(''),
    answeredBy: text()
      .$type<StaffId>()
      .references(() => staff.id),
    answeredAt: integer(),
    askedAt: integer().notNull(),
  },
  (table) => [
    index('requests_state').on(table.state, table.askedAt),
    index('requests_grant').on(table.grantId),
  ],
);

/**
 * One way to a dispatch, for one addressee or for whoever it was sent to. The token alone opens
 * nothing, save that of an open link.
 */
export const links = sqliteTable('links', {
  id: text().$type<LinkId>().primaryKey(),
  token: text().notNull().unique(),
  dispatchId: text()
    .$type<DispatchId>()
    .notNull()
    .references(() => dispatches.id),
  /** Whose it is; null: that of a file made for everybody the dispatch was sent to. */
  recipientId: text()
    .$type<RecipientId>()
    .references(() => recipients.id),
  createdAt: integer().notNull(),
  /** When it was switched off; null: it leads to the dispatch. */
  offAt: integer(),
  seal: seal(),
});
