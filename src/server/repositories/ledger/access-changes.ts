import 'server-only';
import { gt, inArray, max, sql } from 'drizzle-orm';
import { actionsThatChange } from '@/core/ledger/action-effects';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerEntries } from '@/server/db/schema/ledger';

/** The newest sequence number; 0 where nothing was recorded. */
export async function lastSequence(db: Reading | Transaction): Promise<number> {
  const [row] = await db.select({ last: max(ledgerEntries.sequence) }).from(ledgerEntries);
  return row?.last ?? 0;
}

/** What changes the access of anyone who has the document, or of everybody; and of one person alone. */
const ACCESS_CHANGES = actionsThatChange('all');

const OWN_CHANGES = actionsThatChange('own');

/** What each change of access recorded after `sequence` names: grant, document, recipient, and grants above. */
export async function accessChangesSince(
  db: Reading,
  sequence: number,
): Promise<(string | null)[][]> {
  // As one text: a wide cut leaves thousands of rows.
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(grant_id, CASE WHEN action IN (SELECT value
    FROM json_each(${JSON.stringify(OWN_CHANGES)})) THEN NULL
    ELSE document_id END, recipient_id)) AS found FROM ledger_entries
    WHERE ${gt(ledgerEntries.sequence, sequence)}
    AND ${inArray(ledgerEntries.action, [...ACCESS_CHANGES, ...OWN_CHANGES])}`);
  const named = JSON.parse(got?.found ?? '[]') as (string | null)[][];
  const above = await db.all<{ id: string }>(sql`
    WITH RECURSIVE above(id) AS (
      SELECT g.parent_id FROM ledger_entries e JOIN grants g ON g.id = e.grant_id
      AND g.passed_on_by IS NOT NULL WHERE e.sequence > ${sequence} AND e.action IN (SELECT value
      FROM json_each(${JSON.stringify(OWN_CHANGES)}))
      UNION SELECT g.parent_id FROM grants g JOIN above ON g.id = above.id WHERE g.passed_on_by IS NOT NULL
    ) SELECT id FROM above WHERE id IS NOT NULL`);
  return above.length === 0 ? named : [...named, above.map(({ id }) => id)];
}
