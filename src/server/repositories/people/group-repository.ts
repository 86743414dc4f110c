import 'server-only';
import { and, count, eq, inArray, sql } from 'drizzle-orm';
import type { GroupId, RecipientId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { groupMembers, groups, recipients } from '@/server/db/schema/people';

/** Every group with how many people are in it. */
export async function listGroups(
  db: Reading | Transaction,
): Promise<
  { readonly id: GroupId; readonly name: string; readonly people: number; readonly live: number }[]
> {
  const live = sql<number>`(SELECT count(DISTINCT g.dispatch_id) FROM grants g
    JOIN recipients r ON r.id = g.recipient_id WHERE r.address = 'group:' || "groups"."id"
    AND g.revoked_at IS NULL)`;
  return db
    .select({ id: groups.id, name: groups.name, people: count(groupMembers.recipientId), live })
    .from(groups)
    .leftJoin(groupMembers, eq(groupMembers.groupId, groups.id))
    .groupBy(groups.id)
    .orderBy(sql`${groups.name} COLLATE NOCASE`);
}

export async function findGroup(db: Reading | Transaction, id: GroupId) {
  const [row] = await db.select().from(groups).where(eq(groups.id, id));
  return row ?? null;
}

export async function groupsOf(
  db: Reading | Transaction,
  recipient: RecipientId,
): Promise<GroupId[]> {
  const rows = await db
    .select({ id: groupMembers.groupId })
    .from(groupMembers)
    .where(eq(groupMembers.recipientId, recipient));
  return rows.map(({ id }) => id);
}

/** Who is in a group, those who are blocked left out: what is sent to them opens for nobody. */
export async function addressesIn(db: Reading, group: GroupId): Promise<string[]> {
  const rows = await db
    .select({ address: recipients.address })
    .from(groupMembers)
    .innerJoin(recipients, eq(recipients.id, groupMembers.recipientId))
    .where(and(eq(groupMembers.groupId, group), eq(recipients.blocked, false)))
    .orderBy(recipients.organisation, recipients.address);
  return rows.map(({ address }) => address);
}

/** Who is in these groups, those who are blocked left out. */
export async function membersOf(db: Reading | Transaction, ids: readonly GroupId[]) {
  const rows = await db
    .select({ group: groupMembers.groupId, person: recipients })
    .from(groupMembers)
    .innerJoin(recipients, eq(recipients.id, groupMembers.recipientId))
    .where(and(inArray(groupMembers.groupId, [...ids]), eq(recipients.blocked, false)))
    .orderBy(recipients.organisation, recipients.address);
  return rows;
}

export async function putGroupRow(tx: Transaction, row: typeof groups.$inferInsert): Promise<void> {
  await tx
    .insert(groups)
    .values(row)
    .onConflictDoUpdate({ target: groups.id, set: { name: row.name } });
}

export async function removeGroupRow(tx: Transaction, id: GroupId): Promise<void> {
  await tx.delete(groupMembers).where(eq(groupMembers.groupId, id));
  await tx.delete(groups).where(eq(groups.id, id));
}

export async function addMembers(
  tx: Transaction,
  groupId: GroupId,
  ids: readonly RecipientId[],
): Promise<void> {
  if (ids.length > 0)
    await tx
      .insert(groupMembers)
      .values(ids.map((recipientId) => ({ groupId, recipientId })))
      .onConflictDoNothing();
}

export async function removeMembers(
  tx: Transaction,
  groupId: GroupId,
  ids: readonly RecipientId[],
): Promise<void> {
  if (ids.length > 0)
    await tx
      .delete(groupMembers)
      .where(and(eq(groupMembers.groupId, groupId), inArray(groupMembers.recipientId, [...ids])));
}
