import 'server-only';
import { eq, sql } from 'drizzle-orm';
import type { GrantId } from '@/core/base/ids';
import type { Transaction } from '@/server/db/database';
import { grants } from '@/server/db/schema/access';

/**
 * Counts one print of a grant, and of every grant that it was passed on from.
 * @returns the number
 * of the copy, of its own grant
 */
export async function countPrint(tx: Transaction, id: GrantId): Promise<number> {
  await tx.run(sql`
    UPDATE grants SET prints_made = prints_made + 1 WHERE id IN (
      WITH RECURSIVE above(id, parent) AS (
        SELECT id, CASE WHEN passed_on_by IS NULL THEN NULL ELSE parent_id END FROM grants WHERE id = ${id}
        UNION SELECT g.id, CASE WHEN g.passed_on_by IS NULL THEN NULL ELSE g.parent_id END
        FROM grants g JOIN above ON g.id = above.parent
      ) SELECT id FROM above)`);
  const [row] = await tx
    .select({ printsMade: grants.printsMade })
    .from(grants)
    .where(eq(grants.id, id));
  return row?.printsMade ?? 0;
}
