import { blob, index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { StaffId, ViewId } from '@/core/base/ids';
import type { SenderLimits } from '@/core/policy/sender-limits';
import type { Role } from '@/core/policy/permissions';
import { seal } from '@/server/db/schema/seal-column';

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

/** A view of the ledger under a name: the query of its address. */
export const savedViews = sqliteTable(
  'saved_views',
  {
    id: text().$type<ViewId>().primaryKey(),
    staffId: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    /** The list that it is a view of. */
    place: text().$type<'ledger' | 'dispatches'>().notNull(),
    name: text().notNull(),
    query: text().notNull(),
    createdAt: integer().notNull(),
  },
  (table) => [uniqueIndex('saved_views_name').on(table.staffId, table.place, table.name)],
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
