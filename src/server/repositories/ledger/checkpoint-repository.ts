import 'server-only';
import { desc, gt } from 'drizzle-orm';
import type { Reading } from '@/server/db/database';
import { ledgerCheckpoints } from '@/server/db/schema/ledger';

/** Every signed checkpoint, the smallest first. */
export async function listCheckpoints(
  db: Reading,
): Promise<{ readonly size: number; readonly text: string }[]> {
  return db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .orderBy(ledgerCheckpoints.size);
}

/** The newest signed checkpoint; null where nothing was signed yet. */
export async function lastCheckpoint(
  db: Reading,
): Promise<{ readonly size: number; readonly text: string } | null> {
  const [row] = await db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .orderBy(desc(ledgerCheckpoints.size))
    .limit(1);
  return row ?? null;
}

/** Signed checkpoints that cover more than so many entries. */
export async function checkpointsAfter(
  db: Reading,
  size: number,
): Promise<{ readonly size: number; readonly text: string }[]> {
  return db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .where(gt(ledgerCheckpoints.size, size))
    .orderBy(ledgerCheckpoints.size);
}
