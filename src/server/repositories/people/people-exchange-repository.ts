import 'server-only';
import { eq, sql } from 'drizzle-orm';
import { groupBy } from '@/core/base/group';
import type { RecipientId } from '@/core/base/ids';
import type { KnownPerson } from '@/core/people/plan';
import type { Reading, Transaction } from '@/server/db/database';
import { groupMembers, groups } from '@/server/db/schema/people';

export type KnownRecipient = KnownPerson & { readonly id: RecipientId };

/** Everybody there is. As one text: a hundred thousand rows of their own would take seconds. */
export async function everybody(db: Reading | Transaction): Promise<KnownRecipient[]> {
  const [got] = await db.all<{ found: string }>(
    sql`SELECT json_group_array(json_array(id, address, name, organisation, zone,
      language, own_id)) AS found FROM (SELECT * FROM recipients WHERE kind = 'person'
      ORDER BY organisation, name, address)`,
  );
  const rows = JSON.parse(got?.found ?? '[]') as [
    RecipientId,
    string,
    string,
    string,
    string | null,
    string | null,
    string | null,
  ][];
  return rows.map(([id, address, name, organisation, zone, language, ownId]) => ({
    id,
    address,
    name,
    organisation,
    zone,
    language,
    ownId,
  }));
}

export async function insertEverybody(
  tx: Transaction,
  people: readonly KnownRecipient[],
  now: number,
): Promise<void> {
  const rows = people.map(({ id, address, name, organisation, zone, language, ownId }) => [
    id,
    address,
    name,
    organisation,
    zone,
    language,
    ownId,
  ]);
  await tx.run(
    sql`INSERT INTO recipients (id, address, name, organisation, zone, language, own_id, created_at)
      SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5,
      value ->> 6, ${now}
      FROM json_each(${JSON.stringify(rows)})`,
  );
}

export async function changeEverybody(
  tx: Transaction,
  people: readonly KnownRecipient[],
): Promise<void> {
  const rows = people.map(({ id, name, organisation, zone, language, ownId }) => [
    id,
    name,
    organisation,
    zone,
    language,
    ownId,
  ]);
  await tx.run(
    sql`UPDATE recipients SET name = stated.value ->> 1, organisation = stated.value ->> 2,
      zone = stated.value ->> 3, language = stated.value ->> 4, own_id = stated.value ->> 5
      FROM json_each(${JSON.stringify(rows)}) AS stated WHERE recipients.id = stated.value ->> 0`,
  );
}

/** The names of the groups that people are in, by person. */
export async function groupNames(
  db: Reading | Transaction,
): Promise<ReadonlyMap<RecipientId, readonly string[]>> {
  const rows = await db
    .select({ person: groupMembers.recipientId, name: groups.name })
    .from(groupMembers)
    .innerJoin(groups, eq(groups.id, groupMembers.groupId))
    .orderBy(groups.name);
  return new Map(
    [...groupBy(rows, ({ person }) => person)].map(([person, all]) => [
      person,
      all.map(({ name }) => name),
    ]),
  );
}
