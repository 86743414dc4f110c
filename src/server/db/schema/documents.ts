import type { CommentsSeenBy } from '@/core/comments/comment';
import { sql } from 'drizzle-orm';
import {
  blob,
  foreignKey,
  index,
  integer,
  sqliteTable,
  text,
  uniqueIndex,
  type AnySQLiteColumn,
} from 'drizzle-orm/sqlite-core';
import type {
  DocumentId,
  FolderId,
  MarkingId,
  StaffId,
  UploadId,
  VersionId,
} from '@/core/base/ids';
import type { MediaType } from '@/core/content/media-types';
import { staff } from '@/server/db/schema/staff';
import { seal } from '@/server/db/schema/seal-column';

export const documents = sqliteTable(
  'documents',
  {
    id: text().$type<DocumentId>().primaryKey(),
    reference: text().notNull().unique(),
    title: text().notNull(),
    ownerId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    /** Who answers for it while the owner cannot; null: the organisation's administrators. */
    deputyId: text()
      .$type<StaffId>()
      .references(() => staff.id),
    folderId: text()
      .$type<FolderId>()
      .references(() => folders.id),
    markingId: text()
      .$type<MarkingId>()
      .references(() => markings.id),
    /** Facts of the organisation's own choosing: project, lot, revision. */
    attributes: text({ mode: 'json' })
      .$type<Readonly<Record<string, string>>>()
      .notNull()
      .default(sql`'{}'`),
    versionId: text().$type<VersionId>().notNull(),
    /** Whether its versions carry a way in for the organisation’s recovery key. */
    recoverable: integer({ mode: 'boolean' }).notNull().default(true),
    /** Who sees its comments besides who made them and the staff. */
    commentsSeenBy: text().$type<CommentsSeenBy>().notNull().default('makers'),
    /** The strictest days of every ceiling over it, for lists; null: none limits them. */
    daysAtMost: integer(),
    revokedAt: integer(),
    revokedBy: text().$type<StaffId>(),
    createdAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [
    index('documents_created').on(table.createdAt, table.id),
    index('documents_folder').on(table.folderId),
  ],
);

/** Places documents sit in; they nest. */
export const folders = sqliteTable(
  'folders',
  {
    id: text().$type<FolderId>().primaryKey(),
    parentId: text().$type<FolderId>(),
    name: text().notNull(),
    /** How new documents in it, and below it, are marked where nothing else says so. */
    markingId: text()
      .$type<MarkingId>()
      .references((): AnySQLiteColumn => markings.id),
    /** Who made it; null: before that was noted. */
    createdBy: text().$type<StaffId>(),
    createdAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [
    foreignKey({ columns: [table.parentId], foreignColumns: [table.id] }),
    index('folders_parent').on(table.parentId),
  ],
);

/** Protective markings: one flat list that the organisation names itself. */
export const markings = sqliteTable('markings', {
  id: text().$type<MarkingId>().primaryKey(),
  name: text().notNull().unique(),
  /** What it means, for anyone who chooses one. */
  meaning: text().notNull(),
  /** Whether titles of what bears it stay out of mail and of cover pages. */
  hidesTitles: integer({ mode: 'boolean' }).notNull().default(false),
  /** What is said in mail that brings what bears it; empty: nothing. */
  mailWords: text().notNull().default(''),
  position: integer().notNull(),
  seal: seal(),
});

export const versions = sqliteTable(
  'versions',
  {
    id: text().$type<VersionId>().primaryKey(),
    documentId: text()
      .$type<DocumentId>()
      .notNull()
      .references(() => documents.id),
    number: integer().notNull(),
    fileName: text().notNull(),
    mediaType: text().$type<MediaType>().notNull(),
    pages: integer().notNull(),
    /** Plain length in bytes. */
    bytes: integer().notNull(),
    /** Plain length of the pages that were made of it, a PDF; null: it is drawn as it is, or has none. */
    pagesBytes: integer(),
    /** A keyed hash of its plain content: two that are the same have the same. */
    contentMac: text().notNull(),
    blobKey: text().notNull(),
    headerBytes: integer().notNull(),
    /** The file key under the master key; null once it was destroyed. */
    wrappedKey: blob({ mode: 'buffer' }),
    keyGeneration: integer().notNull(),
    /** The public recovery key this file carries a way in for; null: none. */
    recoveryKey: text(),
    createdAt: integer().notNull(),
    /** Null: a recipient sent it back. */
    createdBy: text()
      .$type<StaffId>()
      .references(() => staff.id),
    /** When everybody who has the document was told of it; null: they were not. */
    toldAt: integer(),
    /**
     * It was encrypted on its sender's machine and never came here: what is stored under its key is an
     * age file of nothing, with the same header.
     */
    isLocal: integer({ mode: 'boolean' }).notNull().default(false),
    /** When its stored content was found not to be what was stored. */
    damagedAt: integer(),
    seal: seal(),
  },
  (table) => [
    uniqueIndex('versions_number').on(table.documentId, table.number),
    index('versions_content').on(table.contentMac),
  ],
);

export const uploads = sqliteTable('uploads', {
  id: text().$type<UploadId>().primaryKey(),
  versionId: text().$type<VersionId>().notNull(),
  staffId: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  /** Its content is encrypted on its sender's machine and does not come here. */
  isLocal: integer({ mode: 'boolean' }).notNull().default(false),
  /** The document this is to become a new version of; null: a document of its own. */
  documentId: text()
    .$type<DocumentId>()
    .references(() => documents.id),
  fileName: text().notNull(),
  /** What kind of file it is by its first part; null until that has come. */
  mediaType: text().$type<MediaType>(),
  declaredBytes: integer().notNull(),
  receivedBytes: integer().notNull(),
  /** Plain length of the pages that were made of it; null: none were, so far. */
  pagesBytes: integer(),
  blobKey: text().notNull(),
  headerBytes: integer().notNull(),
  wrappedKey: blob({ mode: 'buffer' }).notNull(),
  keyGeneration: integer().notNull(),
  recoveryKey: text(),
  /**
   * Where the part begins that is being sealed, and a keyed hash of its bytes: under one key and
   * nonce nothing else is sealed there.
   */
  sealingFrom: integer(),
  sealingMac: text(),
  /** A keyed hash of the plain content that has come. */
  contentMac: text().notNull().default(''),
  createdAt: integer().notNull(),
  updatedAt: integer().notNull(),
});
