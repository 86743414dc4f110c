import type { Watermark } from '@/core/watermark/layers';
import { sql } from 'drizzle-orm';
import {
  blob,
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import type {
  CommentId,
  DeviceId,
  DocumentId,
  GrantId,
  Id,
  LicenceId,
  LinkId,
  PaperId,
  RecipientId,
  RevisionId,
  StaffId,
  VersionId,
} from '@/core/base/ids';
import type { Language } from '@/core/base/languages';
import type { CommentPlace } from '@/core/comments/comment';
import type { RevisionState } from '@/core/content/revision';
import type { PaperState } from '@/core/paper/paper-copy';
import type { NoticeTexts } from '@/core/message/reader-notice';
import { links, grants } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';
import { seal } from '@/server/db/schema/seal-column';
import { documents, versions } from '@/server/db/schema/documents';
import { staff } from '@/server/db/schema/staff';

/** A one-time code that was asked for, bound to the browser that asked. */
export const challenges = sqliteTable(
  'challenges',
  {
    id: text().$type<Id<'challenge'>>().primaryKey(),
    /** By which link it was asked for; null: by none, to see what was sent to the address. */
    linkId: text()
      .$type<LinkId>()
      .references(() => links.id),
    address: text().notNull(),
    codeMac: text().notNull(),
    browserHash: text().notNull(),
    attempts: integer().notNull().default(0),
    expiresAt: integer().notNull(),
    usedAt: integer(),
    createdAt: integer().notNull(),
  },
  (table) => [index('challenges_address').on(table.address, table.createdAt)],
);

/** A browser that proved an address. */
export const devices = sqliteTable('devices', {
  id: text().$type<DeviceId>().primaryKey(),
  address: text().notNull(),
  recipientId: text()
    .$type<RecipientId>()
    .references(() => recipients.id),
  label: text().notNull(),
  /** What the person calls it; null: what it is. */
  name: text(),
  kept: integer({ mode: 'boolean' }).notNull(),
  tokenHash: text().notNull().unique(),
  /** Public half of the browser's own signing key (JWK), which every page request is signed with. */
  publicKey: text({ mode: 'json' }).$type<JsonWebKey>().notNull(),
  createdAt: integer().notNull(),
  /** When a code that was mailed to the address was entered last, here or where the passkey was made. */
  provenAt: integer().notNull(),
  /** When a passkey was used on it last; null: never. */
  passkeyAt: integer(),
  expiresAt: integer().notNull(),
  endedAt: integer(),
  seal: seal(),
});

/** Keys in somebody's own devices that prove them besides, or after, the code in their mailbox (WebAuthn). */
export const passkeys = sqliteTable(
  'passkeys',
  {
    id: text().$type<Id<'passkey'>>().primaryKey(),
    address: text().notNull(),
    /** The credential id, base64url. */
    credential: text().notNull().unique(),
    publicKey: blob({ mode: 'buffer' }).notNull(),
    counter: integer().notNull(),
    transports: text({ mode: 'json' }).$type<readonly string[]>().notNull(),
    /** What it was made on. */
    label: text().notNull(),
    /** When the address was proven by a code where it was made. */
    provenAt: integer().notNull(),
    createdAt: integer().notNull(),
    usedAt: integer().notNull(),
    endedAt: integer(),
    seal: seal(),
  },
  (table) => [index('passkeys_address').on(table.address)],
);

/** What a passkey is to answer next, one for each browser. */
export const passkeyChallenges = sqliteTable('passkey_challenges', {
  /** A device, or the mark of a browser that has proven nothing, under a keyed hash. */
  holder: text().primaryKey(),
  challenge: text().notNull(),
  expiresAt: integer().notNull(),
});

/** One open. */
export const licences = sqliteTable(
  'licences',
  {
    id: text().$type<LicenceId>().primaryKey(),
    grantId: text()
      .$type<GrantId>()
      .notNull()
      .references(() => grants.id),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    versionId: text()
      .$type<VersionId>()
      .notNull()
      .references(() => versions.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    deviceId: text()
      .$type<DeviceId>()
      .notNull()
      .references(() => devices.id),
    /** The watermark with every piece filled in that is known at the open. */
    watermark: text({ mode: 'json' }).$type<Watermark>().notNull(),
    statement: text().notNull(),
    openedAt: integer().notNull(),
    expiresAt: integer().notNull(),
    /** When the content key was last given to the device; null: never. */
    keyGivenAt: integer(),
    /** Until when the device may read without asking again; null: it asks at every open. */
    offlineUntil: integer(),
    /** How many opens without a connection were handed in. */
    offlineOpens: integer().notNull().default(0),
    seal: seal(),
  },
  (table) => [
    index('licences_document').on(table.documentId),
    index('licences_offline')
      .on(table.offlineUntil)
      .where(sql`offline_until IS NOT NULL`),
    index('licences_grant').on(table.grantId),
    index('licences_recipient').on(table.recipientId, table.openedAt),
  ],
);

/** Remarks on pages. What they say is encrypted under a key that follows from that of the version. */
export const comments = sqliteTable(
  'comments',
  {
    id: text().$type<CommentId>().primaryKey(),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    versionId: text()
      .$type<VersionId>()
      .notNull()
      .references(() => versions.id),
    page: integer().notNull(),
    place: text({ mode: 'json' }).$type<CommentPlace>().notNull(),
    /** The comment that this one answers; null: it stands by itself. */
    answers: text().$type<CommentId>(),
    recipientId: text()
      .$type<RecipientId>()
      .references(() => recipients.id),
    staffId: text()
      .$type<StaffId>()
      .references(() => staff.id),
    body: blob({ mode: 'buffer' }).notNull(),
    madeAt: integer().notNull(),
    changedAt: integer(),
    resolvedAt: integer(),
    removedAt: integer(),
  },
  (table) => [index('comments_document').on(table.documentId, table.page)],
);

/** Print renditions, each a copy on paper as far as anybody knows, and what became of it. */
export const paperCopies = sqliteTable(
  'paper_copies',
  {
    id: text().$type<PaperId>().primaryKey(),
    grantId: text()
      .$type<GrantId>()
      .notNull()
      .references(() => grants.id),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    versionId: text()
      .$type<VersionId>()
      .notNull()
      .references(() => versions.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    /** As it says on the paper: counted for each grant by itself. */
    number: integer().notNull(),
    fromPage: integer().notNull(),
    toPage: integer().notNull(),
    madeAt: integer().notNull(),
    state: text().$type<PaperState>().notNull().default('out'),
    note: text().notNull().default(''),
    notedBy: text()
      .$type<StaffId>()
      .references(() => staff.id),
    notedAt: integer(),
  },
  (table) => [
    uniqueIndex('paper_copies_number').on(table.grantId, table.number),
    index('paper_copies_document').on(table.documentId, table.madeAt),
  ],
);

/** For whom an owner has the text of pages sent, for a screen reader, although they may not copy it. */
export const readingAids = sqliteTable(
  'reading_aids',
  {
    id: text().$type<Id<'aids'>>().primaryKey(),
    ownerId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    since: integer().notNull(),
    seal: seal(),
  },
  (table) => [uniqueIndex('reading_aids_once').on(table.recipientId, table.ownerId)],
);

/** A changed file that a recipient sent back: a version beside the one they had, never over it. */
export const revisions = sqliteTable(
  'revisions',
  {
    id: text().$type<RevisionId>().primaryKey(),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    versionId: text()
      .$type<VersionId>()
      .notNull()
      .unique()
      .references(() => versions.id),
    /** The version that was changed. */
    basedOn: text()
      .$type<VersionId>()
      .notNull()
      .references(() => versions.id),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    note: text().notNull(),
    state: text().$type<RevisionState>().notNull().default('waiting'),
    sentAt: integer().notNull(),
    /** What was said along with the answer. */
    answer: text().notNull().default(''),
    answeredBy: text()
      .$type<StaffId>()
      .references(() => staff.id),
    answeredAt: integer(),
  },
  (table) => [
    index('revisions_document').on(table.documentId, table.sentAt),
    index('revisions_state').on(table.state, table.sentAt),
  ],
);

/** Pages that were shown within an open, so that each is recorded once. */
export const licencePages = sqliteTable(
  'licence_pages',
  {
    licenceId: text()
      .$type<LicenceId>()
      .notNull()
      .references(() => licences.id),
    page: integer().notNull(),
    /** How long it was in view, in ms, as the reader's browser told. */
    shownFor: integer().notNull().default(0),
  },
  (table) => [primaryKey({ columns: [table.licenceId, table.page] })],
);

/** What recipients are asked to accept; every wording is kept, as evidence of what was accepted. */
export const readerNotices = sqliteTable('reader_notices', {
  /** Counts from 1. */
  version: integer().primaryKey(),
  /** By language; none: nothing is asked. */
  texts: text({ mode: 'json' }).$type<NoticeTexts>().notNull(),
  madeBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  createdAt: integer().notNull(),
});

/** Who accepted which wording. */
export const noticeAcceptances = sqliteTable(
  'notice_acceptances',
  {
    address: text().notNull(),
    version: integer()
      .notNull()
      .references(() => readerNotices.version),
    language: text().$type<Language>().notNull(),
    deviceId: text()
      .$type<DeviceId>()
      .notNull()
      .references(() => devices.id),
    acceptedAt: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.address, table.version] })],
);
