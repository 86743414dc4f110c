import 'server-only';
import { eq, sql } from 'drizzle-orm';
import type { TextId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { savedTexts } from '@/server/db/schema/dispatching';
import { staff } from '@/server/db/schema/staff';

export async function listSavedTexts(db: Reading | Transaction) {
  return db
    .select({
      id: savedTexts.id,
      name: savedTexts.name,
      subject: savedTexts.subject,
      note: savedTexts.note,
      changedBy: staff.name,
    })
    .from(savedTexts)
    .innerJoin(staff, eq(staff.id, savedTexts.changedBy))
    .orderBy(sql`${savedTexts.name} COLLATE NOCASE`);
}

/** Adds a text, or replaces the one of the same name. */
export async function putTextRow(
  tx: Transaction,
  { id, ...row }: typeof savedTexts.$inferInsert,
): Promise<void> {
  await tx
    .insert(savedTexts)
    .values({ id, ...row })
    .onConflictDoUpdate({ target: savedTexts.name, set: row });
}

/** @returns the name of what was removed; `null`: there was none */
export async function removeTextRow(tx: Transaction, id: TextId): Promise<string | null> {
  const rows = await tx
    .delete(savedTexts)
    .where(eq(savedTexts.id, id))
    .returning({ name: savedTexts.name });
  return rows[0]?.name ?? null;
}
