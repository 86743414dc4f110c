import 'server-only';
import { sql } from 'drizzle-orm';
import type { DispatchId, DocumentId, StaffId } from '@/core/base/ids';
import type { Opened } from '@/core/insight/notices';
import type { Reading } from '@/server/db/database';
import { effectiveEnd } from '@/server/repositories/access/effective-end';

/** The opens and refusals of (`after`, `upTo`], oldest first, with what is known of earlier ones; at most `limit`. */
export async function openedSince(
  db: Reading,
  after: number,
  upTo: number,
  limit: number,
): Promise<Opened[]> {
  const rows = await db.all<{
    sequence: number;
    at: string;
    outcome: string;
    reason: string;
    who: string;
    organisation: string;
    linkOf: string;
    place: string;
    document: DocumentId;
    title: string;
    dispatch: string;
    owner: StaffId;
    deputy: StaffId | null;
    sender: StaffId | null;
    first: number;
    elsewhere: number;
    onNewDevice: number;
  }>(sql`
    WITH e AS (
      SELECT sequence, occurred_at, outcome, reason, recipient_id, device_id, link_of, document_id, dispatch_id,
        coalesce((SELECT value FROM ledger_personal p WHERE p.sequence = l.sequence
        AND p.field = 'place'), '') AS place, coalesce((SELECT value FROM ledger_personal p
        WHERE p.sequence = l.sequence AND p.field = 'address'), '') AS address
      FROM ledger_entries l WHERE sequence > ${after} AND sequence <= ${upTo}
      AND action = 'document.opened' AND outcome IN ('granted', 'refused')
      AND document_id IS NOT NULL ORDER BY sequence LIMIT ${limit}
    )
    SELECT e.sequence AS sequence, e.occurred_at AS at, e.outcome AS outcome, coalesce(e.reason,
    '') AS reason, coalesce(nullif(r.name, ''), r.address, nullif(e.address, ''),
    'Somebody not known') AS who, coalesce(r.organisation, '') AS organisation,
      coalesce((SELECT coalesce(nullif(w.name, ''), w.address) FROM recipients w
      WHERE w.id = e.link_of), '') AS linkOf, e.place AS place, d.id AS document,
      d.title AS title, coalesce(s.reference, '') AS dispatch, d.owner_id AS owner,
      d.deputy_id AS deputy, s.sent_by AS sender,
      NOT EXISTS (SELECT 1 FROM ledger_entries o WHERE o.recipient_id = e.recipient_id
      AND o.sequence < e.sequence AND o.document_id = e.document_id
      AND o.action = 'document.opened' AND o.outcome = 'granted') AS first,
      e.place <> '' AND r.organisation <> ''
        AND NOT EXISTS (SELECT 1 FROM ledger_personal p
        JOIN ledger_entries o ON o.sequence = p.sequence
        JOIN recipients q ON q.id = o.recipient_id WHERE p.field = 'place' AND p.value = e.place
        AND p.sequence < e.sequence AND o.action = 'document.opened' AND o.outcome = 'granted'
        AND q.organisation = r.organisation)
        AND EXISTS (SELECT 1 FROM recipients q JOIN ledger_entries o ON o.recipient_id = q.id
        JOIN ledger_personal p ON p.sequence = o.sequence AND p.field = 'place'
        WHERE q.organisation = r.organisation AND o.sequence < e.sequence
        AND o.action = 'document.opened' AND o.outcome = 'granted') AS elsewhere,
      e.device_id IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM ledger_entries o WHERE o.recipient_id = e.recipient_id
        AND o.sequence < e.sequence AND o.device_id = e.device_id
        AND o.action = 'document.opened' AND o.outcome = 'granted')
        AND EXISTS (SELECT 1 FROM ledger_entries o WHERE o.recipient_id = e.recipient_id
        AND o.sequence < e.sequence
        AND o.action = 'document.opened' AND o.outcome = 'granted') AS onNewDevice
    FROM e JOIN documents d ON d.id = e.document_id LEFT
    JOIN recipients r ON r.id = e.recipient_id LEFT JOIN dispatches s ON s.id = e.dispatch_id
    ORDER BY e.sequence`);
  return rows.map(({ at, outcome, owner, deputy, sender, first, place, ...row }) => ({
    ...row,
    place: place.split(',')[0] ?? '',
    at: Date.parse(at),
    granted: outcome === 'granted',
    answerable: [owner, deputy, sender],
    first: outcome === 'granted' && first === 1,
    elsewhere: outcome === 'granted' && row.elsewhere === 1,
    onNewDevice: outcome === 'granted' && row.onNewDevice === 1,
  }));
}

/** Dispatches of which some live access ends in (`from`, `to`], the next first, with who sent each. */
export async function endingSoon(
  db: Reading,
  from: number,
  to: number,
): Promise<
  {
    readonly reference: string;
    readonly subject: string;
    readonly people: number;
    readonly until: number;
    readonly sender: StaffId;
  }[]
> {
  const end = effectiveEnd('g', 'd');
  return db.all(sql`
    SELECT s.reference AS reference, s.subject AS subject,
    count(DISTINCT g.recipient_id) AS people, min(${end}) AS until, s.sent_by AS sender
    FROM grants g JOIN documents d ON d.id = g.document_id
    JOIN dispatches s ON s.id = g.dispatch_id JOIN recipients r ON r.id = g.recipient_id
    WHERE g.revoked_at IS NULL AND d.revoked_at IS NULL AND r.blocked = 0 AND ${end} > ${from}
    AND ${end} <= ${to} GROUP BY s.id ORDER BY min(${end})`);
}

/**
 * Documents of which some mailed access may end in (`from`, `to`]: by an end, or by a span that
 * begins with the first open.
 */
export async function documentsEnding(
  db: Reading,
  from: number,
  to: number,
): Promise<DocumentId[]> {
  const end = effectiveEnd('g', 'd');
  const rows = await db.all<{ id: DocumentId }>(sql`
    SELECT DISTINCT d.id AS id FROM grants g JOIN documents d ON d.id = g.document_id
    JOIN dispatches s ON s.id = g.dispatch_id
    WHERE g.revoked_at IS NULL AND d.revoked_at IS NULL AND s.delivery = 'mail'
    AND ((${end} > ${from} AND ${end} <= ${to}) OR json_extract(g.conditions,
    '$.within') IS NOT NULL)`);
  return rows.map(({ id }) => id);
}

/** Who sent a dispatch, by name. */
export async function senderOf(
  db: Reading,
  dispatch: DispatchId,
): Promise<{ readonly name: string; readonly email: string | null }> {
  const [row] = await db.all<{ name: string; email: string }>(
    sql`SELECT u.name AS name, u.email AS email
      FROM dispatches s JOIN staff u ON u.id = s.sent_by WHERE s.id = ${dispatch}`,
  );
  return row ?? { name: '', email: null };
}
