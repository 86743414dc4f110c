import 'server-only';
import { and, eq } from 'drizzle-orm';
import type { LevelDefaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import type { Reading, Transaction } from '@/server/db/database';
import { withoutSeal } from '@/server/db/schema/seal-column';
import { levelDefaults } from '@/server/db/schema/policy';

/** What every level sets: few, beside what is below them. */
export async function listDefaults(db: Reading | Transaction): Promise<LevelDefaults[]> {
  return db.select(withoutSeal(levelDefaults)).from(levelDefaults);
}

export async function putDefaultsRow(
  tx: Transaction,
  row: typeof levelDefaults.$inferInsert,
): Promise<void> {
  await tx
    .insert(levelDefaults)
    .values(row)
    .onConflictDoUpdate({ target: [levelDefaults.level, levelDefaults.subject], set: row });
}

export async function removeDefaultsRow(
  tx: Transaction,
  level: Level,
  subject: string,
): Promise<void> {
  await tx
    .delete(levelDefaults)
    .where(and(eq(levelDefaults.level, level), eq(levelDefaults.subject, subject)));
}
