import 'server-only';
import { and, count, countDistinct, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type {
  DispatchId,
  DocumentId,
  GrantId,
  GroupId,
  RecipientId,
  StaffId,
} from '@/core/base/ids';
import { addressOfGroup, type AddresseeKind } from '@/core/policy/addressee';
import type { Scope } from '@/core/policy/scope';
import type { Reading, Transaction } from '@/server/db/database';
import type { GrantRecord } from '@/server/repositories/access/grant-reader';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';
import type { PeopleOrder } from '@/core/base/order';
import { behind, inOrder, type Ordering } from '@/server/repositories/base/ordering';
import { notEnded } from '@/server/repositories/access/effective-end';
import { idsOfPerson } from '@/server/repositories/people/same-person-repository';
import { holding } from '@/server/repositories/access/holding';

/** What a list of people is narrowed to. */
export type PeopleFilter = {
  readonly text?: string | undefined;
  readonly organisation?: string | undefined;
  readonly group?: GroupId | undefined;
  readonly id?: RecipientId | undefined;
};

function passing({ text = '', organisation, group, id }: PeopleFilter): SQL | undefined {
  // Somebody who came by an open link is shown where they are met, and in no list.
  return and(
    id === undefined
      ? eq(recipients.kind, 'person')
      : inArray(recipients.kind, ['person', 'visitor']),
    group === undefined
      ? undefined
      : sql`"recipients"."id" IN (SELECT recipient_id FROM group_members WHERE group_id = ${group})`,
    text === ''
      ? undefined
      : holding(
          text,
          recipients.name,
          recipients.address,
          recipients.organisation,
          recipients.ownId,
        ),
    organisation === undefined ? undefined : eq(recipients.organisation, organisation),
    id === undefined ? undefined : eq(recipients.id, id),
  );
}

export async function countPeople(
  db: Reading,
  filter: PeopleFilter,
): Promise<{ readonly people: number; readonly organisations: number }> {
  const [row] = await db
    .select({ people: count(), organisations: countDistinct(recipients.organisation) })
    .from(recipients)
    .where(passing(filter));
  return row ?? { people: 0, organisations: 0 };
}

// Written out: with one table in the FROM the builder leaves table names off, which inside a
// subquery would name another column.
const OWN = sql.raw('"recipients"."id"');
const DOCUMENTS = sql<number>`(SELECT count(DISTINCT g.document_id) FROM grants g WHERE g.recipient_id = ${OWN})`;
const OPENS = sql<number>`(SELECT count(*) FROM licences l WHERE l.recipient_id = ${OWN})`;
const LAST_OPEN = sql<
  number | null
>`(SELECT max(l.opened_at) FROM licences l WHERE l.recipient_id = ${OWN})`;

/** Grants that could be opened now, were the person not blocked. */
function live(now: number): SQL<number> {
  return sql<number>`(SELECT count(*) FROM grants g JOIN documents d ON d.id = g.document_id
    WHERE g.recipient_id = ${OWN} AND g.revoked_at IS NULL AND d.revoked_at IS NULL
    AND ${notEnded('g', 'd', now)} AND (g.from_at IS NULL OR g.from_at <= ${now}))`;
}

/** What each order of the people goes by. */
const ORDERS: Readonly<Record<PeopleOrder, (now: number) => SQL>> = {
  name: () => sql`CASE ${recipients.name} WHEN '' THEN ${recipients.address} ELSE ${recipients.name} END
    COLLATE NOCASE`,
  organisation: () => sql`nullif(${recipients.organisation}, '') COLLATE NOCASE`,
  documents: () => DOCUMENTS,
  live: (now) => sql`CASE WHEN ${recipients.blocked} THEN 0 ELSE ${live(now)} END`,
  opens: () => OPENS,
  lastOpen: () => LAST_OPEN,
};

/** Which of the people are read, and in which order. */
export type PeopleStretch = {
  readonly limit: number;
  readonly after?: RecipientId | undefined;
  readonly order?: { readonly by: PeopleOrder; readonly down: boolean } | undefined;
};

/** By organisation and name, as nothing else was asked for. */
const BY_ORGANISATION = [recipients.organisation, recipients.name, recipients.address];

/** The rows behind one that was seen last. */
async function peopleBehind(
  db: Reading,
  ordering: Ordering | null,
  after: RecipientId,
): Promise<SQL | undefined> {
  if (ordering === null)
    return sql`(${recipients.organisation}, ${recipients.name}, ${recipients.address}) >
      (SELECT organisation, name, address FROM recipients WHERE id = ${after})`;
  const [last] = await db
    .select({ value: sql<string | number | null>`${ordering.expression}`, id: recipients.id })
    .from(recipients)
    .where(eq(recipients.id, after));
  return last === undefined ? undefined : behind(ordering, last);
}

/**
 * People in the order asked for, else by organisation and name, those behind `after` where it is
 * given, with what they hold now.
 */
export async function listPeopleRows(
  db: Reading,
  filter: PeopleFilter,
  now: number,
  { limit, after, order }: PeopleStretch,
) {
  const ordering: Ordering | null =
    order === undefined
      ? null
      : {
          expression: ORDERS[order.by](now),
          id: recipients.id,
          down: order.down,
          mayLack: order.by === 'organisation' || order.by === 'lastOpen',
        };
  const rest = after === undefined ? undefined : await peopleBehind(db, ordering, after);
  return db
    .select({
      id: recipients.id,
      name: recipients.name,
      address: recipients.address,
      organisation: recipients.organisation,
      zone: recipients.zone,
      language: recipients.language,
      ownId: recipients.ownId,
      blocked: recipients.blocked,
      leftAt: recipients.leftAt,
      documents: DOCUMENTS,
      live: live(now),
      opens: OPENS,
      lastOpen: LAST_OPEN,
    })
    .from(recipients)
    .where(and(passing(filter), rest))
    .orderBy(...(ordering === null ? BY_ORGANISATION : inOrder(ordering)))
    .limit(limit);
}

/** Whoever the organisation calls by this; `null`: nobody. */
export async function findByOwnId(db: Reading | Transaction, ownId: string) {
  const [row] = await db.select().from(recipients).where(eq(recipients.ownId, ownId));
  return row ?? null;
}

export async function changePersonRow(
  tx: Transaction,
  id: RecipientId,
  change: Partial<
    Pick<typeof recipients.$inferSelect, 'name' | 'organisation' | 'zone' | 'language' | 'ownId'>
  >,
): Promise<void> {
  await tx.update(recipients).set(change).where(eq(recipients.id, id));
}

export async function allRecipients(db: Reading) {
  return db
    .select({
      id: recipients.id,
      address: recipients.address,
      name: recipients.name,
      organisation: recipients.organisation,
      blocked: recipients.blocked,
    })
    .from(recipients)
    .where(eq(recipients.kind, 'person'));
}

export type PersonRecord = typeof recipients.$inferSelect;

export async function findPerson(db: Reading | Transaction, id: RecipientId) {
  const [row] = await db.select().from(recipients).where(eq(recipients.id, id));
  return row ?? null;
}

export async function setBlocked(
  tx: Transaction,
  id: RecipientId,
  blocked: boolean,
): Promise<void> {
  // Anyone who may come in again has not left.
  await tx
    .update(recipients)
    .set({ blocked, ...(blocked ? {} : { leftAt: null }) })
    .where(eq(recipients.id, id));
}

/** Notes that somebody has left; they are blocked by it. */
export async function setLeft(tx: Transaction, id: RecipientId, now: number): Promise<void> {
  await tx.update(recipients).set({ blocked: true, leftAt: now }).where(eq(recipients.id, id));
}

export async function refusalsOfPerson(db: Reading, id: RecipientId): Promise<number> {
  return db.$count(
    ledgerEntries,
    and(
      eq(ledgerEntries.recipientId, id),
      eq(ledgerEntries.action, 'document.opened'),
      eq(ledgerEntries.outcome, 'refused'),
    ),
  );
}

/** How often somebody else came by a link of theirs and was refused. */
export async function triesByTheirLinks(db: Reading, id: RecipientId): Promise<number> {
  return db.$count(
    ledgerEntries,
    and(eq(ledgerEntries.linkOf, id), eq(ledgerEntries.outcome, 'refused')),
  );
}

type Scoped =
  | 'id'
  | 'recipientId'
  | 'documentId'
  | 'dispatchId'
  | 'rights'
  | 'fromAt'
  | 'untilAt'
  | 'prints'
  | 'conditions';
export type ScopedGrant = Pick<GrantRecord, Scoped> & {
  readonly sender: StaffId;
  readonly owner: StaffId;
  readonly deputy: StaffId | null;
};

function inScope(scope: Scope): SQL {
  switch (scope.kind) {
    case 'person':
      return sql`g.recipient_id IN ${idsOfPerson(scope.recipient)}`;
    case 'organisation':
      return sql`r.organisation = ${scope.organisation}`;
    case 'dispatch':
      return sql`g.dispatch_id = ${scope.dispatch}`;
    case 'group':
      return sql`r.address = ${addressOfGroup(scope.group)}`;
    case 'person-on-document':
      return sql`g.recipient_id = ${scope.recipient} AND g.document_id = ${scope.document}`;
  }
}

const SCOPED = sql`grants g JOIN recipients r ON r.id = g.recipient_id
  JOIN documents d ON d.id = g.document_id JOIN dispatches s ON s.id = g.dispatch_id`;

/**
 * Grants inside a scope that are not revoked yet, with who answers for each; as one text, since
 * there may be thousands.
 */
export async function grantsInScope(
  db: Reading | Transaction,
  scope: Scope,
): Promise<ScopedGrant[]> {
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(g.id, g.recipient_id, g.document_id, g.dispatch_id,
    s.sent_by, d.owner_id, d.deputy_id, json(g.rights), g.from_at, g.until_at, g.prints,
    json(g.conditions))) AS found FROM ${SCOPED}
    WHERE (${inScope(scope)} OR g.parent_id IN (SELECT g.id FROM ${SCOPED} WHERE ${inScope(scope)}
    AND r.kind <> 'person')) AND g.revoked_at IS NULL`);
  const rows = JSON.parse(got?.found ?? '[]') as [
    GrantId,
    RecipientId,
    DocumentId,
    DispatchId,
    StaffId,
    StaffId,
    StaffId | null,
    GrantRecord['rights'],
    number | null,
    number | null,
    number | null,
    GrantRecord['conditions'],
  ][];
  return rows.map(
    ([
      id,
      recipientId,
      documentId,
      dispatchId,
      sender,
      owner,
      deputy,
      rights,
      fromAt,
      untilAt,
      prints,
      conditions,
    ]) => ({
      id,
      recipientId,
      documentId,
      dispatchId,
      sender,
      owner,
      deputy,
      rights,
      fromAt,
      untilAt,
      prints,
      conditions,
    }),
  );
}

/**
 * What was taken by these grants and stays where it is: prints, and people who kept a copy or took
 * text of these documents, as the ledger says.
 */
export async function beyondRevoking(
  db: Reading,
  ids: readonly GrantId[],
): Promise<{
  readonly printsMade: number;
  readonly keptBy: number;
  readonly textSentTo: number;
  readonly copiedBy: number;
}> {
  const cut = sql`(SELECT value FROM json_each(${JSON.stringify(ids)}))`;
  const whose = (which: SQL): SQL =>
    sql`count(DISTINCT CASE WHEN ${which} THEN e.recipient_id END)`;
  const [[prints], [taken]] = await Promise.all([
    db.all<{ made: number }>(
      sql`SELECT coalesce(sum(prints_made), 0) AS made FROM grants WHERE id IN ${cut}`,
    ),
    db.all<{ kept: number; sent: number; copied: number }>(sql`
      SELECT ${whose(sql`e.action = 'document.kept'`)} AS kept,
      ${whose(sql`e.action <> 'document.kept'`)} AS sent,
      ${whose(sql`e.action = 'text.copied'`)} AS copied
      FROM grants g JOIN ledger_entries e ON e.recipient_id = g.recipient_id AND e.document_id = g.document_id
      WHERE g.id IN ${cut} AND e.action IN ('document.kept', 'text.sent', 'text.copied') AND e.outcome = 'granted'`),
  ]);
  return {
    printsMade: prints?.made ?? 0,
    keptBy: taken?.kept ?? 0,
    textSentTo: taken?.sent ?? 0,
    copiedBy: taken?.copied ?? 0,
  };
}

/** Everything that stands for many: live groups, domains, and anyone who has an open link. */
export async function whatStandsForMany(
  db: Reading,
): Promise<{ readonly id: RecipientId; readonly kind: AddresseeKind }[]> {
  return db
    .select({ id: recipients.id, kind: recipients.kind })
    .from(recipients)
    .where(inArray(recipients.kind, ['group', 'domain', 'link']));
}

export async function recipientsByIds(
  db: Reading | Transaction,
  ids: readonly RecipientId[],
): Promise<PersonRecord[]> {
  return ids.length === 0
    ? []
    : db
        .select()
        .from(recipients)
        .where(inArray(recipients.id, [...ids]));
}
