import 'server-only';
import { and, count, countDistinct, desc, eq, gt, isNull, sql, type SQL } from 'drizzle-orm';
import type { GrantId, RecipientId } from '@/core/base/ids';
import type { Scope } from '@/core/policy/scope';
import type { Reading, Transaction } from '@/server/db/database';
import { devices, dispatches, documents, grants, ledgerEntries, licences, recipients } from '@/server/db/schema';
import { holding } from '@/server/repositories/holding';

/** What a list of people is narrowed to. */
export type PeopleFilter = { readonly text?: string | undefined; readonly organisation?: string | undefined; readonly id?: RecipientId | undefined };

function passing({ text = '', organisation, id }: PeopleFilter): SQL | undefined {
  return and(text === '' ? undefined : holding(text, recipients.name, recipients.address, recipients.organisation), organisation === undefined ? undefined : eq(recipients.organisation, organisation), id === undefined ? undefined : eq(recipients.id, id));
}

export async function countPeople(db: Reading, filter: PeopleFilter): Promise<{ readonly people: number; readonly organisations: number }> {
  const [row] = await db.select({ people: count(), organisations: countDistinct(recipients.organisation) }).from(recipients).where(passing(filter));
  return row ?? { people: 0, organisations: 0 };
}

/** People by organisation and name, those behind `after` where it is given, with what they hold now. */
export async function listPeopleRows(db: Reading, filter: PeopleFilter, now: number, limit: number, after?: RecipientId) {
  const behind = after === undefined ? undefined : sql`(${recipients.organisation}, ${recipients.name}, ${recipients.address}) > (SELECT organisation, name, address FROM recipients WHERE id = ${after})`;
  // Written out: with one table in the FROM the builder leaves table names off, which inside a subquery would name another column.
  const own = sql.raw('"recipients"."id"');
  return db
    .select({
      id: recipients.id, name: recipients.name, address: recipients.address, organisation: recipients.organisation, zone: recipients.zone, language: recipients.language, blocked: recipients.blocked,
      documents: sql<number>`(SELECT count(DISTINCT g.document_id) FROM grants g WHERE g.recipient_id = ${own})`,
      live: sql<number>`(SELECT count(*) FROM grants g JOIN documents d ON d.id = g.document_id WHERE g.recipient_id = ${own} AND g.revoked_at IS NULL AND d.revoked_at IS NULL AND (g.until_at IS NULL OR g.until_at > ${now}) AND (g.from_at IS NULL OR g.from_at <= ${now}))`,
      opens: sql<number>`(SELECT count(*) FROM licences l WHERE l.recipient_id = ${own})`,
      lastOpen: sql<number | null>`(SELECT max(l.opened_at) FROM licences l WHERE l.recipient_id = ${own})`,
    })
    .from(recipients)
    .where(and(passing(filter), behind))
    .orderBy(recipients.organisation, recipients.name, recipients.address)
    .limit(limit);
}

export async function changePersonRow(tx: Transaction, id: RecipientId, change: Partial<Pick<typeof recipients.$inferSelect, 'name' | 'organisation' | 'zone' | 'language'>>): Promise<void> {
  await tx.update(recipients).set(change).where(eq(recipients.id, id));
}

export async function allRecipients(db: Reading) {
  return db.select({ address: recipients.address, name: recipients.name, organisation: recipients.organisation, blocked: recipients.blocked }).from(recipients);
}

export async function findPerson(db: Reading | Transaction, id: RecipientId) {
  const [row] = await db.select().from(recipients).where(eq(recipients.id, id));
  return row ?? null;
}

export async function setBlocked(tx: Transaction, id: RecipientId, blocked: boolean): Promise<void> {
  await tx.update(recipients).set({ blocked }).where(eq(recipients.id, id));
}

export async function devicesOf(db: Reading, address: string, now: number) {
  return db.select({ id: devices.id, label: devices.label, kept: devices.kept, since: devices.createdAt, until: devices.expiresAt }).from(devices).where(and(eq(devices.address, address), isNull(devices.endedAt), gt(devices.expiresAt, now))).orderBy(desc(devices.createdAt));
}

export async function refusalsOfPerson(db: Reading, id: RecipientId): Promise<number> {
  return db.$count(ledgerEntries, and(eq(ledgerEntries.recipientId, id), eq(ledgerEntries.action, 'document.opened'), eq(ledgerEntries.outcome, 'refused')));
}

export type ScopedGrant = { readonly id: GrantId; readonly recipientId: RecipientId; readonly documentId: string; readonly name: string; readonly address: string; readonly sender: string; readonly owner: string; readonly deputy: string | null; readonly printsMade: number; readonly mayKeep: number; readonly opens: number };

/** Grants inside a scope that are not revoked yet, with who answers for each. */
export async function grantsInScope(db: Reading | Transaction, scope: Scope): Promise<ScopedGrant[]> {
  const where = {
    person: () => (scope.kind === 'person' ? eq(grants.recipientId, scope.recipient) : undefined),
    organisation: () => (scope.kind === 'organisation' ? eq(recipients.organisation, scope.organisation) : undefined),
    dispatch: () => (scope.kind === 'dispatch' ? eq(grants.dispatchId, scope.dispatch) : undefined),
    'person-on-document': () => (scope.kind === 'person-on-document' ? and(eq(grants.recipientId, scope.recipient), eq(grants.documentId, scope.document)) : undefined),
  }[scope.kind]();
  if (where === undefined) return [];
  const opens = db.select({ grantId: licences.grantId, opens: sql<number | null>`count(*)`.as('opens') }).from(licences).groupBy(licences.grantId).as('opens');
  const rows = await db
    .select({
      id: grants.id, recipientId: grants.recipientId, documentId: grants.documentId, name: recipients.name, address: recipients.address, sender: dispatches.sentBy, owner: documents.ownerId, deputy: documents.deputyId,
      printsMade: grants.printsMade, mayKeep: sql<number>`instr(${grants.rights}, '"keep"') > 0`, opens: opens.opens,
    })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .leftJoin(opens, eq(opens.grantId, grants.id))
    .where(and(where, isNull(grants.revokedAt)))
    .orderBy(recipients.organisation, recipients.name);
  return rows.map((row) => ({ ...row, opens: row.opens ?? 0 }));
}
