import { sql } from 'drizzle-orm';
import {
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import type { GroupId, RecipientId, StaffId } from '@/core/base/ids';
import type { AddresseeKind } from '@/core/policy/addressee';
import { seal } from '@/server/db/schema/seal-column';
import { staff } from '@/server/db/schema/staff';

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
    /** What the organisation itself calls them by: a number, a code. */
    ownId: text(),
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
    uniqueIndex('recipients_own_id').on(table.ownId),
    index('recipients_order').on(table.organisation, table.name, table.address),
  ],
);

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
