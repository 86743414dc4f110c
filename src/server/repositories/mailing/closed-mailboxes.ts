import 'server-only';
import { eq } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { closedMailboxes } from '@/server/db/schema/mailing';

/** Whether everything for a mailbox of the demo's mail server comes back. */
export async function isMailboxClosed(db: Reading, address: string): Promise<boolean> {
  return (await db.$count(closedMailboxes, eq(closedMailboxes.address, address))) > 0;
}

export async function putMailboxClosed(
  tx: Transaction,
  address: string,
  closed: boolean,
): Promise<void> {
  if (closed) await tx.insert(closedMailboxes).values({ address }).onConflictDoNothing();
  else await tx.delete(closedMailboxes).where(eq(closedMailboxes.address, address));
}
