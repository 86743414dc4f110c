import 'server-only';
import { eq } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { prepared } from '@/server/db/prepared';
import { organisation, serviceKeys } from '@/server/db/schema/organisation';

export type OrganisationRow = typeof organisation.$inferSelect;

const ONLY_ROW = 1;

const onlyRow = prepared((db) =>
  db.select().from(organisation).where(eq(organisation.id, ONLY_ROW)).prepare(),
);

export async function findOrganisation(db: Reading | Transaction): Promise<OrganisationRow | null> {
  const [row] = await onlyRow(db).all();
  return row ?? null;
}

export async function insertOrganisation(
  tx: Transaction,
  row: Omit<typeof organisation.$inferInsert, 'id'>,
): Promise<void> {
  await tx.insert(organisation).values({ id: ONLY_ROW, ...row });
}

export async function setClockOffset(tx: Transaction, clockOffset: number): Promise<void> {
  await tx.update(organisation).set({ clockOffset }).where(eq(organisation.id, ONLY_ROW));
}

export async function findServiceKey(db: Reading | Transaction, name: 'issuer' | 'hashes') {
  const [row] = await db.select().from(serviceKeys).where(eq(serviceKeys.name, name));
  return row ?? null;
}

export async function insertServiceKey(
  tx: Transaction,
  row: typeof serviceKeys.$inferInsert,
): Promise<void> {
  await tx.insert(serviceKeys).values(row);
}

export async function changeOrganisation(
  tx: Transaction,
  change: { readonly recoveryKey?: string; readonly twoPeople?: boolean },
): Promise<void> {
  await tx.update(organisation).set(change).where(eq(organisation.id, ONLY_ROW));
}
