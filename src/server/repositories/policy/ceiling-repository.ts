import 'server-only';
import { and, eq } from 'drizzle-orm';
import type { FolderId, StaffId } from '@/core/base/ids';
import type { Ceiling, Limits } from '@/core/policy/ceiling';
import type { Level } from '@/core/policy/levels';
import type { Reading, Transaction } from '@/server/db/database';
import { prepared } from '@/server/db/prepared';
import { withoutSeal } from '@/server/db/schema/seal-column';
import { ceilings } from '@/server/db/schema/policy';
import { folders } from '@/server/db/schema/documents';

/** Every ceiling there is: few, beside what they limit. */
const allCeilings = prepared((db) => db.select(withoutSeal(ceilings)).from(ceilings).prepare());

export async function listCeilings(db: Reading | Transaction): Promise<Ceiling[]> {
  return allCeilings(db).all();
}

/** Folders with what they lie in. */
export async function folderParents(
  db: Reading | Transaction,
): Promise<Map<FolderId, FolderId | null>> {
  const rows = await db.select({ id: folders.id, parentId: folders.parentId }).from(folders);
  return new Map(rows.map(({ id, parentId }) => [id, parentId]));
}

export async function putCeilingRow(
  tx: Transaction,
  row: {
    readonly level: Level;
    readonly subject: string;
    readonly limits: Limits;
    readonly setBy: StaffId;
    readonly setAt: number;
  },
): Promise<void> {
  await tx
    .insert(ceilings)
    .values(row)
    .onConflictDoUpdate({ target: [ceilings.level, ceilings.subject], set: row });
}

export async function removeCeilingRow(
  tx: Transaction,
  level: Level,
  subject: string,
): Promise<void> {
  await tx.delete(ceilings).where(and(eq(ceilings.level, level), eq(ceilings.subject, subject)));
}
