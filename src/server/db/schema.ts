import { sql } from 'drizzle-orm';
import {
  blob,
  foreignKey,
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import type {
  ConsentId,
  DeviceId,
  DispatchId,
  DocumentId,
  DraftId,
  FolderId,
  GrantId,
  GroupId,
  Id,
  LicenceId,
  LinkId,
  MarkingId,
  RecipientId,
  RequestId,
  StaffId,
  TermsId,
  UploadId,
  VersionId,
  ViewId,
} from '@/core/base/ids';
import type { MediaType } from '@/core/content/media-types';
import type { Kind } from '@/core/insight/kinds';
import type { Outcome } from '@/core/ledger/entry';
import type { DeliveryForm } from '@/core/policy/delivery';
import type { RefusalReason } from '@/core/policy/decide';
import type { DraftBody } from '@/core/policy/draft';
import type { Limits } from '@/core/policy/ceiling';
import type { Defaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import type { SenderLimits } from '@/core/policy/sender-limits';
import type { Leave, Way } from '@/core/policy/rules';
import type { Json } from '@/core/ledger/canonical';
import type { AddresseeKind } from '@/core/policy/addressee';
import type { Conditions } from '@/core/policy/conditions';
import type { ConsentKind } from '@/core/policy/consent';
import type { SavedTerms } from '@/core/policy/saved-terms';
import type { Role } from '@/core/policy/permissions';
import type { RequestState } from '@/core/policy/requests';
import type { Right } from '@/core/policy/rights';

// Moments are milliseconds since the epoch throughout.

/** A keyed hash over what decides in a row, made with every change that this product makes: see `db/seals`. */
const seal = () => blob({ mode: 'buffer' });

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

export const staff = sqliteTable('staff', {
  id: text().$type<StaffId>().primaryKey(),
  name: text().notNull(),
  email: text().notNull().unique(),
  emailVerified: integer({ mode: 'boolean' }).notNull(),
  image: text(),
  role: text().$type<Role>().notNull(),
  /** Since when they have had this role. */
  roleSince: integer().notNull().default(0),
  /** Since when this person cannot sign in; what they did stays theirs. */
  disabledAt: integer(),
  /** The shared secret of the second factor (RFC 6238), wrapped; null where none is set up. */
  factor: blob({ mode: 'buffer' }),
  factorGeneration: integer(),
  /** The last time step that was used, so that a code works once. */
  factorStep: integer(),
  createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
  updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
  seal: seal(),
});

export const staffSessions = sqliteTable('staff_sessions', {
  id: text().primaryKey(),
  token: text().notNull().unique(),
  userId: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  expiresAt: integer({ mode: 'timestamp_ms' }).notNull(),
  ipAddress: text(),
  userAgent: text(),
  /** When password and second factor were last given within this session; null: only when it began. */
  provenAt: integer(),
  createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
  updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
  seal: seal(),
});

export const staffAccounts = sqliteTable('staff_accounts', {
  id: text().primaryKey(),
  accountId: text().notNull(),
  providerId: text().notNull(),
  userId: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  accessToken: text(),
  refreshToken: text(),
  idToken: text(),
  accessTokenExpiresAt: integer({ mode: 'timestamp_ms' }),
  refreshTokenExpiresAt: integer({ mode: 'timestamp_ms' }),
  scope: text(),
  password: text(),
  createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
  updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
  seal: seal(),
});

export const staffVerifications = sqliteTable('staff_verifications', {
  id: text().primaryKey(),
  identifier: text().notNull(),
  value: text().notNull(),
  expiresAt: integer({ mode: 'timestamp_ms' }).notNull(),
  createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
  updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
});

/** A mailed way to choose a password: for somebody invited, or who forgot theirs. Kept as a keyed hash, used once. */
export const staffTickets = sqliteTable(
  'staff_tickets',
  {
    tokenMac: text().primaryKey(),
    staffId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    expiresAt: integer().notNull(),
    usedAt: integer(),
    createdAt: integer().notNull(),
  },
  (table) => [index('staff_tickets_staff').on(table.staffId)],
);

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
  /** What it means, for whoever chooses one. */
  meaning: text().notNull(),
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
    blobKey: text().notNull(),
    headerBytes: integer().notNull(),
    /** The file key under the master key; null once it was destroyed. */
    wrappedKey: blob({ mode: 'buffer' }),
    keyGeneration: integer().notNull(),
    /** The public recovery key this file carries a way in for; null: none. */
    recoveryKey: text(),
    createdAt: integer().notNull(),
    createdBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    /** When its stored content was found not to be what was stored. */
    damagedAt: integer(),
    seal: seal(),
  },
  (table) => [uniqueIndex('versions_number').on(table.documentId, table.number)],
);

export const uploads = sqliteTable('uploads', {
  id: text().$type<UploadId>().primaryKey(),
  versionId: text().$type<VersionId>().notNull(),
  staffId: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  /** The document this is to become a new version of; null: a document of its own. */
  documentId: text()
    .$type<DocumentId>()
    .references(() => documents.id),
  fileName: text().notNull(),
  /** What kind of file it is by its first part; null until that has come. */
  mediaType: text().$type<MediaType>(),
  declaredBytes: integer().notNull(),
  receivedBytes: integer().notNull(),
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
  createdAt: integer().notNull(),
  updatedAt: integer().notNull(),
});

/** Who can be given something: people, and the groups, domains and open links that stand for many. */
export const recipients = sqliteTable(
  'recipients',
  {
    id: text().$type<RecipientId>().primaryKey(),
    kind: text().$type<AddresseeKind>().notNull().default('person'),
    /** Of a person the email address; of the others see core/policy/addressee. */
    address: text().notNull().unique(),
    name: text().notNull(),
    organisation: text().notNull(),
    /** An IANA zone and a language tag, where they are known. */
    zone: text(),
    language: text(),
    blocked: integer({ mode: 'boolean' }).notNull().default(false),
    /** When they were said to have left their organisation. */
    leftAt: integer(),
    /** Another address of the same person, under which all of theirs are gathered. */
    sameAs: text().$type<RecipientId>(),
    /** The member of staff who first addressed them; null: nobody on the staff did. */
    addedBy: text().$type<StaffId>(),
    createdAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [
    index('recipients_same')
      .on(table.sameAs)
      .where(sql`same_as IS NOT NULL`),
    index('recipients_order').on(table.organisation, table.name, table.address),
  ],
);

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

/** People who are often sent the same. */
export const groups = sqliteTable('groups', {
  id: text().$type<GroupId>().primaryKey(),
  name: text().notNull().unique(),
  createdBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  createdAt: integer().notNull(),
});

export const groupMembers = sqliteTable(
  'group_members',
  {
    groupId: text()
      .$type<GroupId>()
      .notNull()
      .references(() => groups.id, { onDelete: 'cascade' }),
    recipientId: text()
      .$type<RecipientId>()
      .notNull()
      .references(() => recipients.id),
    seal: seal(),
  },
  (table) => [
    primaryKey({ columns: [table.groupId, table.recipientId] }),
    index('group_members_recipient').on(table.recipientId),
  ],
);

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

/** A view of the ledger under a name: the query of its address. */
export const savedViews = sqliteTable(
  'saved_views',
  {
    id: text().$type<ViewId>().primaryKey(),
    staffId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    name: text().notNull(),
    query: text().notNull(),
    createdAt: integer().notNull(),
  },
  (table) => [uniqueIndex('saved_views_name').on(table.staffId, table.name)],
);

/** The most that may be given below a level. */
export const ceilings = sqliteTable(
  'ceilings',
  {
    level: text().$type<Level>().notNull(),
    /** The marking, folder or document; empty for the organisation. */
    subject: text().notNull(),
    limits: text({ mode: 'json' }).$type<Limits>().notNull(),
    setBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    setAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [primaryKey({ columns: [table.level, table.subject] })],
);

/** What single members of staff may send, to whom, and the most they may give. */
export const senderLimits = sqliteTable('sender_limits', {
  staffId: text()
    .$type<StaffId>()
    .primaryKey()
    .references(() => staff.id),
  limits: text({ mode: 'json' }).$type<SenderLimits>().notNull(),
  setBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  setAt: integer().notNull(),
  seal: seal(),
});

/** What the organisation decided about ways of handing something out. */
export const rules = sqliteTable('rules', {
  way: text().$type<Way>().primaryKey(),
  leave: text().$type<Leave>().notNull(),
  reason: text().notNull(),
  setBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  setAt: integer().notNull(),
  seal: seal(),
});

/** What dispatches below a level begin with, and what stands on every page there. */
export const levelDefaults = sqliteTable(
  'level_defaults',
  {
    level: text().$type<Level>().notNull(),
    /** The marking, folder or document; empty for the organisation. */
    subject: text().notNull(),
    defaults: text({ mode: 'json' }).$type<Defaults>().notNull(),
    watermark: text().notNull(),
    setBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    setAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [primaryKey({ columns: [table.level, table.subject] })],
);

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

/** What a recipient asks of whoever answers for a grant: more time, or a right. */
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

/** What the organisation chose about how work is done here: by name, as JSON. Nothing in it decides about access. */
export const settings = sqliteTable('settings', {
  name: text().primaryKey(),
  value: text().notNull(),
});

/** One way to a dispatch for one addressee. The token alone opens nothing. */
export const links = sqliteTable('links', {
  id: text().$type<LinkId>().primaryKey(),
  token: text().notNull().unique(),
  dispatchId: text()
    .$type<DispatchId>()
    .notNull()
    .references(() => dispatches.id),
  recipientId: text()
    .$type<RecipientId>()
    .notNull()
    .references(() => recipients.id),
  createdAt: integer().notNull(),
  seal: seal(),
});

/** A one-time code that was asked for, bound to the browser that asked. */
export const challenges = sqliteTable(
  'challenges',
  {
    id: text().$type<Id<'challenge'>>().primaryKey(),
    linkId: text()
      .$type<LinkId>()
      .notNull()
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
  kept: integer({ mode: 'boolean' }).notNull(),
  tokenHash: text().notNull().unique(),
  /** Public half of the browser's own signing key (JWK), which every page request is signed with. */
  publicKey: text({ mode: 'json' }).$type<JsonWebKey>().notNull(),
  createdAt: integer().notNull(),
  expiresAt: integer().notNull(),
  endedAt: integer(),
  seal: seal(),
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
    /** The watermark's text with every token filled in at the open. */
    watermark: text().notNull(),
    statement: text().notNull(),
    openedAt: integer().notNull(),
    expiresAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [
    index('licences_document').on(table.documentId),
    index('licences_grant').on(table.grantId),
    index('licences_recipient').on(table.recipientId, table.openedAt),
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
  },
  (table) => [primaryKey({ columns: [table.licenceId, table.page] })],
);

type MailState = 'waiting' | 'sending' | 'delivered' | 'failed' | 'unsure';

export const outbox = sqliteTable(
  'outbox',
  {
    id: text().$type<Id<'message'>>().primaryKey(),
    dispatchId: text().$type<DispatchId>(),
    recipientId: text().$type<RecipientId>(),
    toAddress: text().notNull(),
    subject: text().notNull(),
    /** Plain text of the message; an HTML part is made from it on delivery. Emptied once a code was delivered. */
    body: text().notNull(),
    /** Versions that travel with it, each as a protected file made when it is delivered. */
    attached: text({ mode: 'json' })
      .$type<readonly VersionId[]>()
      .notNull()
      .default(sql`'[]'`),
    /** `sending`: being handed over. `unsure`: it was, when this product ended; whether it arrived nobody knows. */
    state: text().$type<MailState>().notNull(),
    /** Codes and notices, which somebody waits for, go before what was dispatched. */
    urgent: integer({ mode: 'boolean' }).notNull().default(false),
    attempts: integer().notNull().default(0),
    nextAttemptAt: integer().notNull(),
    lastError: text(),
    createdAt: integer().notNull(),
    deliveredAt: integer(),
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
  },
  (table) => [index('mailroom_to').on(table.toAddress, table.receivedAt)],
);

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
    /** The last entry that was counted here: whoever holds a copy reads only what came since. */
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
