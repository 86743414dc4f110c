import 'server-only';
import { and, count, desc, eq, sql } from 'drizzle-orm';
import type { Reading } from '@/server/db/database';
import { groupMembers, groups, recipients } from '@/server/db/schema/people';
import { holding } from '@/server/repositories/access/holding';

// Written out: inside a subquery the builder leaves table names off.
const LAST_SENT = sql<
  number | null
>`(SELECT max(l.created_at) FROM links l WHERE l.recipient_id = "recipients"."id")`;

/** When each of these was last sent something; who never was is absent. */
export async function lastSent(
  db: Reading,
  addresses: readonly string[],
): Promise<ReadonlyMap<string, number>> {
  if (addresses.length === 0) return new Map();
  const rows = await db
    .select({ address: recipients.address, at: LAST_SENT })
    .from(recipients)
    .where(
      sql`${recipients.address} IN (SELECT value FROM json_each(${JSON.stringify(addresses)}))`,
    );
  return new Map(rows.flatMap(({ address, at }) => (at === null ? [] : [[address, at] as const])));
}

/** People whose name, address or organisation holds a text, those who were sent something last first. */
export async function suggestedPeople(db: Reading, text: string, limit: number) {
  return db
    .select({
      address: recipients.address,
      name: recipients.name,
      organisation: recipients.organisation,
      blocked: recipients.blocked,
      lastSentAt: LAST_SENT,
    })
    .from(recipients)
    .where(
      and(
        eq(recipients.kind, 'person'),
        holding(text, recipients.name, recipients.address, recipients.organisation),
      ),
    )
    .orderBy(desc(LAST_SENT), recipients.name)
    .limit(limit);
}

/** Organisations whose name holds a text, with how many people are listed there. */
export async function suggestedOrganisations(db: Reading, text: string, limit: number) {
  return db
    .select({ name: recipients.organisation, people: count() })
    .from(recipients)
    .where(
      and(
        eq(recipients.kind, 'person'),
        eq(recipients.blocked, false),
        sql`${recipients.organisation} <> ''`,
        holding(text, recipients.organisation),
      ),
    )
    .groupBy(recipients.organisation)
    .orderBy(recipients.organisation)
    .limit(limit);
}

/** Groups whose name holds a text, with how many people are in each. */
export async function suggestedGroups(db: Reading, text: string, limit: number) {
  return db
    .select({ id: groups.id, name: groups.name, people: count(groupMembers.recipientId) })
    .from(groups)
    .leftJoin(groupMembers, eq(groupMembers.groupId, groups.id))
    .where(holding(text, groups.name))
    .groupBy(groups.id)
    .orderBy(groups.name)
    .limit(limit);
}

/** Everybody at an organisation who is not blocked. */
export async function peopleOf(db: Reading, organisation: string, limit: number) {
  return db
    .select({
      address: recipients.address,
      name: recipients.name,
      organisation: recipients.organisation,
    })
    .from(recipients)
    .where(
      and(
        eq(recipients.kind, 'person'),
        eq(recipients.blocked, false),
        eq(recipients.organisation, organisation),
      ),
    )
    .orderBy(recipients.name, recipients.address)
    .limit(limit);
}
