import 'server-only';
import { eq, sql } from 'drizzle-orm';
import type { RecipientId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { recipients } from '@/server/db/schema/people';

/** Every id under which somebody is known, the one given first; as SQL, for what is about all of them. */
export function idsOfPerson(id: RecipientId) {
  return sql`(SELECT p.id FROM recipients p, recipients given WHERE given.id = ${id}
    AND (p.id = given.id OR p.id = given.same_as OR p.same_as = given.id
    OR p.same_as = given.same_as))`;
}

/** The addresses of somebody besides the one that is given. */
export async function otherAddresses(db: Reading | Transaction, id: RecipientId) {
  return db
    .select({ id: recipients.id, address: recipients.address })
    .from(recipients)
    .where(sql`${recipients.id} <> ${id} AND ${recipients.id} IN ${idsOfPerson(id)}`)
    .orderBy(recipients.address);
}

/** Gathers addresses under one; null: each is on its own again. */
export async function setSame(
  tx: Transaction,
  id: RecipientId,
  sameAs: RecipientId | null,
): Promise<void> {
  await tx.update(recipients).set({ sameAs }).where(eq(recipients.id, id));
}
