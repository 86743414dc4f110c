import 'server-only';
import { inArray, sql } from 'drizzle-orm';
import { formsOf, WAYS, type Rule, type Way } from '@/core/policy/rules';
import type { Reading, Transaction } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { withoutSeal } from '@/server/db/schema/seal-column';
import { rules } from '@/server/db/schema/policy';

/** What was decided; what nobody decided about is as it is at first. */
export async function listRules(db: Reading | Transaction): Promise<Rule[]> {
  return db.select(withoutSeal(rules)).from(rules);
}

export async function putRuleRow(tx: Transaction, row: typeof rules.$inferInsert): Promise<void> {
  await tx.insert(rules).values(row).onConflictDoUpdate({ target: rules.way, set: row });
}

/** How many dispatches went out in each way, of those that can still be opened or cannot be taken back. */
export async function dispatchesByWay(db: Reading): Promise<ReadonlyMap<Way, number>> {
  const byForm = WAYS.filter((way) => formsOf(way).length > 0).map(
    (way) => sql`SELECT ${way} AS way, count(*) AS dispatches FROM dispatches
      WHERE ${inArray(dispatches.form, formsOf(way))}`,
  );
  const rows = await db.all<{ way: Way; dispatches: number }>(sql`
    ${sql.join(byForm, sql` UNION ALL `)}
    UNION ALL SELECT CASE r.kind WHEN 'link' THEN 'open-link'
    ELSE 'domain' END, count(DISTINCT g.dispatch_id) FROM grants g
    JOIN recipients r ON r.id = g.recipient_id WHERE r.kind IN ('domain', 'link')
    AND g.revoked_at IS NULL GROUP BY r.kind`);
  return new Map(rows.map(({ way, dispatches }) => [way, dispatches]));
}
