import 'server-only';
import { eq } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { settings } from '@/server/db/schema/organisation';

const NAME = 'closed mailboxes';

/** The mailboxes of the demo's mail server from which everything comes back. */
export async function closedMailboxes(db: Reading | Transaction): Promise<readonly string[]> {
  const [row] = await db.select().from(settings).where(eq(settings.name, NAME));
  return row === undefined ? [] : (JSON.parse(row.value) as readonly string[]);
}

export async function putClosedMailboxes(
  tx: Transaction,
  addresses: readonly string[],
): Promise<void> {
  const row = { name: NAME, value: JSON.stringify(addresses) };
  await tx.insert(settings).values(row).onConflictDoUpdate({ target: settings.name, set: row });
}
