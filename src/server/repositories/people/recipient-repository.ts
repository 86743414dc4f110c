import 'server-only';
import { inArray } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { recipients } from '@/server/db/schema/people';

export type RecipientRecord = typeof recipients.$inferSelect;

export async function findRecipients(
  db: Reading | Transaction,
  addresses: readonly string[],
): Promise<RecipientRecord[]> {
  return addresses.length === 0
    ? []
    : db
        .select()
        .from(recipients)
        .where(inArray(recipients.address, [...addresses]));
}

export async function insertRecipients(
  tx: Transaction,
  rows: readonly (typeof recipients.$inferInsert)[],
): Promise<void> {
  if (rows.length > 0) await tx.insert(recipients).values([...rows]);
}
