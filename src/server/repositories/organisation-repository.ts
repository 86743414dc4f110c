import 'server-only';
import { eq, inArray } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';
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

export async function setClockOffset(tx: Transaction, clockOffset: number): Promise<void> {
  await tx.update(organisation).set({ clockOffset }).where(eq(organisation.id, ONLY_ROW));
}

export async function findServiceKey(db: Reading | Transaction, name: 'issuer' | 'hashes') {
  const [row] = await db.select().from(serviceKeys).where(eq(serviceKeys.name, name));
  return row ?? null;
}

export async function insertServiceKey(tx: Transaction, row: typeof serviceKeys.$inferInsert): Promise<void> {
  await tx.insert(serviceKeys).values(row);
}

/** Names to show for the ids that entries carry. */
export function namesOf(db: Reading, ids: readonly string[]): Promise<Map<string, string>> {
  return ids.length === 0 ? Promise.resolve(new Map<string, string>()) : named(db, ids);
}

/** Names for every id there is. */
export function allNames(db: Reading): Promise<Map<string, string>> {
  return named(db, null);
}

async function named(db: Reading, ids: readonly string[] | null): Promise<Map<string, string>> {
  const among = (column: SQLiteColumn) => (ids === null ? undefined : inArray(column, [...ids]));
  const [people, papers, sendings, members] = await Promise.all([
    db.select({ id: recipients.id, name: recipients.name, address: recipients.address }).from(recipients).where(among(recipients.id)),
    db.select({ id: documents.id, name: documents.title }).from(documents).where(among(documents.id)),
    db.select({ id: dispatches.id, name: dispatches.reference }).from(dispatches).where(among(dispatches.id)),
    db.select({ id: staff.id, name: staff.name }).from(staff).where(among(staff.id)),
  ]);
  return new Map<string, string>([...people.map((row): [string, string] => [row.id, row.name === '' ? row.address : row.name]), ...[...papers, ...sendings, ...members].map((row): [string, string] => [row.id, row.name])]);
}

export async function changeOrganisation(tx: Transaction, change: { readonly recoveryKey?: string; readonly twoPeople?: boolean }): Promise<void> {
  await tx.update(organisation).set(change).where(eq(organisation.id, ONLY_ROW));
}
