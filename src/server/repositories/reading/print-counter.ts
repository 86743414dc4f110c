import 'server-only';
import { sql } from 'drizzle-orm';
import type { GrantId } from '@/core/base/ids';
import type { Transaction } from '@/server/db/database';

/** Counts one print more, or one less, of a grant and of every grant that it was passed on from. */
export async function changePrintCount(
  tx: Transaction,
  id: GrantId,
  change: 1 | -1,
): Promise<void> {
  await tx.run(sql`
    UPDATE grants SET prints_made = max(0, prints_made + ${change}) WHERE id IN (
      WITH RECURSIVE above(id, parent) AS (
        SELECT id, CASE WHEN passed_on_by IS NULL THEN NULL ELSE parent_id END FROM grants WHERE id = ${id}
        UNION SELECT g.id, CASE WHEN g.passed_on_by IS NULL THEN NULL ELSE g.parent_id END
        FROM grants g JOIN above ON g.id = above.parent
      ) SELECT id FROM above)`);
}
