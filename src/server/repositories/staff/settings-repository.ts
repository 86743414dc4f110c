import 'server-only';
import { eq } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import { settings } from '@/server/db/schema/organisation';

/** What was chosen under a name; `null`: nothing yet. */
export async function findSetting(db: Reading | Transaction, name: string): Promise<unknown> {
  const [row] = await db.select().from(settings).where(eq(settings.name, name));
  return row === undefined ? null : JSON.parse(row.value);
}

export async function putSetting(tx: Transaction, name: string, value: unknown): Promise<void> {
  const row = { name, value: JSON.stringify(value) };
  await tx.insert(settings).values(row).onConflictDoUpdate({ target: settings.name, set: row });
}
