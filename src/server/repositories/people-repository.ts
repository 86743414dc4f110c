import 'server-only';
import { and, desc, eq, gt, isNull, lte, max, or, sql } from 'drizzle-orm';
import type { GrantId, RecipientId } from '@/core/base/ids';
import type { Scope } from '@/core/policy/scope';
import type { Reading, Transaction } from '@/server/db/database';
import { devices, dispatches, documents, grants, ledgerEntries, licences, recipients } from '@/server/db/schema';

/** Everybody who was ever addressed, with what they hold now. */
export async function listPeopleRows(db: Reading, now: number) {
  const live = and(isNull(grants.revokedAt), isNull(documents.revokedAt), or(isNull(grants.untilAt), gt(grants.untilAt, now)), or(isNull(grants.fromAt), lte(grants.fromAt, now)));
  const held = db
    .select({ recipientId: grants.recipientId, documents: sql<number | null>`count(distinct ${grants.documentId})`.as('documents'), live: sql<number | null>`sum(${live})`.as('live') })
    .from(grants).innerJoin(documents, eq(documents.id, grants.documentId)).groupBy(grants.recipientId).as('held');
  const opened = db.select({ recipientId: licences.recipientId, opens: sql<number | null>`count(*)`.as('opens'), lastOpen: max(licences.openedAt).as('last_open') }).from(licences).groupBy(licences.recipientId).as('opened');
  return db
    .select({ id: recipients.id, name: recipients.name, address: recipients.address, organisation: recipients.organisation, blocked: recipients.blocked, documents: held.documents, live: held.live, opens: opened.opens, lastOpen: opened.lastOpen })
    .from(recipients)
    .leftJoin(held, eq(held.recipientId, recipients.id))
    .leftJoin(opened, eq(opened.recipientId, recipients.id))
    .orderBy(recipients.organisation, recipients.name, recipients.address);
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
