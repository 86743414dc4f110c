import 'server-only';
import { eq, inArray } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, dispatches, organisation, recipients, serviceKeys, staff } from '@/server/db/schema';

export type OrganisationRow = typeof organisation.$inferSelect;

const ONLY_ROW = 1;

export async function findOrganisation(db: Reading | Transaction): Promise<OrganisationRow | null> {
  const [row] = await db.select().from(organisation).where(eq(organisation.id, ONLY_ROW));
  return row ?? null;
}

export async function insertOrganisation(tx: Transaction, row: Omit<typeof organisation.$inferInsert, 'id'>): Promise<void> {
  await tx.insert(organisation).values({ id: ONLY_ROW, ...row });
}

export async function findServiceKey(db: Reading | Transaction) {
  const [row] = await db.select().from(serviceKeys).where(eq(serviceKeys.name, 'issuer'));
  return row ?? null;
}

export async function insertServiceKey(tx: Transaction, row: typeof serviceKeys.$inferInsert): Promise<void> {
  await tx.insert(serviceKeys).values(row);
}

/** Names to show for the ids that entries carry. */
export async function namesOf(db: Reading, ids: readonly string[]): Promise<Map<string, string>> {
  const list = ids as never[];
  const [people, papers, sendings, members] = await Promise.all([
    db.select({ id: recipients.id, name: recipients.name, address: recipients.address }).from(recipients).where(inArray(recipients.id, list)),
    db.select({ id: documents.id, name: documents.title }).from(documents).where(inArray(documents.id, list)),
    db.select({ id: dispatches.id, name: dispatches.reference }).from(dispatches).where(inArray(dispatches.id, list)),
    db.select({ id: staff.id, name: staff.name }).from(staff).where(inArray(staff.id, list)),
  ]);
  return new Map<string, string>([...people.map((row): [string, string] => [row.id, row.name === '' ? row.address : row.name]), ...[...papers, ...sendings, ...members].map((row): [string, string] => [row.id, row.name])]);
}
