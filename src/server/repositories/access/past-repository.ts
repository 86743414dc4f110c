import 'server-only';
import { and, asc, desc, eq, gt, inArray, lte, or, sql } from 'drizzle-orm';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { toUtcText, type Moment } from '@/core/base/time';
import type { Entry } from '@/core/ledger/entry';
import { ACCESS_ACTIONS } from '@/core/ledger/past-access';
import type { Reading } from '@/server/db/database';
import { ledgerEntries } from '@/server/db/schema/ledger';

function entryOf({ body }: { readonly body: string }): Entry {
  return JSON.parse(body) as Entry;
}

/** Entries about access to a document up to a moment, in order; `recipients`: of the grants, only those of these. */
export async function accessEntries(
  db: Reading,
  document: DocumentId,
  until: Moment,
  recipients?: readonly RecipientId[],
): Promise<Entry[]> {
  const ofThem =
    recipients === undefined
      ? undefined
      : or(
          sql`${ledgerEntries.grantId} IS NULL`,
          inArray(ledgerEntries.recipientId, [...recipients]),
        );
  const rows = await db
    .select({ body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(
      and(
        eq(ledgerEntries.documentId, document),
        inArray(ledgerEntries.action, [...ACCESS_ACTIONS]),
        lte(ledgerEntries.occurredAt, toUtcText(until)),
        ofThem,
      ),
    )
    .orderBy(asc(ledgerEntries.sequence));
  return rows.map(entryOf);
}

/** Every change of a ceiling up to a moment, in order. */
export async function ceilingEntries(db: Reading, until: Moment): Promise<Entry[]> {
  const rows = await db
    .select({ body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(
      and(
        eq(ledgerEntries.action, 'ceiling.changed'),
        lte(ledgerEntries.occurredAt, toUtcText(until)),
      ),
    )
    .orderBy(asc(ledgerEntries.sequence));
  return rows.map(entryOf);
}

/** How a document was filed otherwise after a moment, in order. */
export async function filedSince(
  db: Reading,
  document: DocumentId,
  since: Moment,
): Promise<Entry[]> {
  const rows = await db
    .select({ body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(
      and(
        eq(ledgerEntries.documentId, document),
        eq(ledgerEntries.action, 'document.filed'),
        gt(ledgerEntries.occurredAt, toUtcText(since)),
      ),
    )
    .orderBy(asc(ledgerEntries.sequence));
  return rows.map(entryOf);
}

/** Which of these people were blocked at a moment. */
export async function blockedAt(
  db: Reading,
  people: readonly RecipientId[],
  at: Moment,
): Promise<ReadonlySet<RecipientId>> {
  const rows = await db
    .select({ recipient: ledgerEntries.recipientId, action: ledgerEntries.action })
    .from(ledgerEntries)
    .where(
      and(
        inArray(ledgerEntries.action, ['recipient.blocked', 'recipient.unblocked']),
        inArray(ledgerEntries.recipientId, [...people]),
        lte(ledgerEntries.occurredAt, toUtcText(at)),
      ),
    )
    .orderBy(desc(ledgerEntries.sequence));
  const last = new Map<string, string>();
  for (const { recipient, action } of rows)
    if (recipient !== null && !last.has(recipient)) last.set(recipient, action ?? '');
  return new Set(people.filter((person) => last.get(person) === 'recipient.blocked'));
}

/** How many prints were made after a moment of grants on a document, of whatever was passed on from each included. */
export async function printsSince(
  db: Reading,
  document: DocumentId,
  since: Moment,
): Promise<ReadonlyMap<GrantId, number>> {
  // A print is charged to the grant that gave the right to it, which need not be that of the open.
  const rows = await db.all<{ grant: GrantId; prints: number }>(sql`
    WITH RECURSIVE made(id, print, change) AS (
      SELECT json_extract(body, '$.rule'), sequence, 1 FROM ledger_entries
      WHERE document_id = ${document} AND action = 'document.printed' AND outcome = 'granted'
      AND occurred_at > ${toUtcText(since)}
      UNION SELECT json_extract(body, '$.rule'), sequence,
      (json_extract(body, '$.details.was') = 'failed') - (json_extract(body, '$.details.now') = 'failed')
      FROM ledger_entries WHERE document_id = ${document} AND action = 'print.noted'
      AND occurred_at > ${toUtcText(since)}
      UNION SELECT g.parent_id, made.print, made.change FROM made JOIN grants g ON g.id = made.id
      WHERE g.passed_on_by IS NOT NULL AND g.parent_id IS NOT NULL
    ) SELECT id AS "grant", sum(change) AS prints FROM made WHERE id IS NOT NULL GROUP BY id`);
  return new Map(rows.map(({ grant, prints }) => [grant, prints]));
}
