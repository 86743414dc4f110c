import 'server-only';
import { sql } from 'drizzle-orm';
import { groupBy } from '@/core/base/group';
import type { DispatchId, DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type { Entry } from '@/core/ledger/entry';
import type { Reading } from '@/server/db/database';

export type AboutEntry = {
  readonly entry: Entry;
  readonly text: string;
  /** What somebody wrote with it, where it is kept. */ readonly said: string;
};

type Wanted = {
  readonly document: DocumentId;
  readonly grants: readonly GrantId[];
  readonly people: readonly RecipientId[];
  /** Dispatches that many were addressed by, so that anyone who comes by one need not be known. */
  readonly many: readonly DispatchId[];
};

/**
 * What the ledger has of pulling a document back from some people: what revoked it, what they
 * others by their link, or anybody by a dispatch to many were refused, and what they took of it.
 * Oldest first; of text that was sent, the first entry of each person.
 */
export async function entriesAbout(
  db: Reading,
  { document, grants, people, many }: Wanted,
): Promise<AboutEntry[]> {
  const [got] = await db.all<{ found: string }>(sql`
    WITH person(id) AS (SELECT value FROM json_each(${JSON.stringify(people)})),
    cut(id) AS (SELECT value FROM json_each(${JSON.stringify(grants)})),
    found(sequence) AS (
      SELECT sequence FROM ledger_entries WHERE document_id = ${document} AND (
        action = 'document.revoked' OR (action = 'grant.revoked' AND grant_id IN (SELECT id FROM cut))
        OR (outcome = 'refused' AND (recipient_id IN (SELECT id FROM person)
        OR link_of IN (SELECT id FROM person) OR dispatch_id IN (SELECT value
        FROM json_each(${JSON.stringify(many)}))))
        OR (outcome = 'granted' AND action IN ('document.kept', 'document.printed', 'text.copied')
        AND recipient_id IN (SELECT id FROM person)))
      UNION SELECT min(sequence) FROM ledger_entries WHERE document_id = ${document}
      AND action = 'text.sent' AND outcome = 'granted' AND recipient_id IN (SELECT id FROM person)
      GROUP BY recipient_id
    )
    SELECT json_group_array(json_array(body, said)) AS found FROM (
      SELECT e.body AS body, coalesce((SELECT value FROM ledger_personal p
      WHERE p.sequence = e.sequence AND p.field = 'text'), '') AS said FROM ledger_entries e
      JOIN found USING (sequence) ORDER BY e.sequence)`);
  return (JSON.parse(got?.found ?? '[]') as [string, string][]).map(([text, said]) => ({
    entry: JSON.parse(text) as Entry,
    text,
    said,
  }));
}

/** By which of these grants devices read on without asking: since when they have the key, and until when. */
export async function runningOffline(
  db: Reading,
  grants: readonly GrantId[],
  now: number,
): Promise<
  readonly {
    readonly grant: GrantId;
    readonly recipient: RecipientId;
    readonly from: number;
    readonly until: number;
  }[]
> {
  if (grants.length === 0) return [];
  return db.all(sql`
    SELECT grant_id AS "grant", recipient_id AS recipient, min(key_given_at) AS "from",
    max(offline_until) AS until FROM licences
    WHERE grant_id IN (SELECT value FROM json_each(${JSON.stringify(grants)}))
    AND offline_until > ${now} GROUP BY grant_id, recipient_id`);
}

/** Until when somebody reads on, on their own machine, without asking. */
export type ReadsOn = {
  readonly recipient: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly until: number;
};

/** Who reads a document on without asking, or with whichever documents these people do; the last first. */
export async function whoReadsOn(
  db: Reading,
  asked: { readonly document: DocumentId } | { readonly people: readonly RecipientId[] },
  now: number,
): Promise<readonly ReadsOn[]> {
  const these =
    'document' in asked
      ? sql`l.document_id = ${asked.document}`
      : sql`l.recipient_id IN (SELECT value FROM json_each(${JSON.stringify(asked.people)}))`;
  return db.all(sql`
    SELECT r.id AS recipient, r.name AS name, r.address AS address, max(l.offline_until) AS until
    FROM licences l JOIN recipients r ON r.id = l.recipient_id
    WHERE l.offline_until > ${now} AND ${these} GROUP BY r.id ORDER BY until DESC, r.name`);
}

/**
 * Whose devices read on without asking, and until when: by `person document`, and by whom it was given
 * to, where that is a group, a domain or a link.
 */
export type AllReadOn = ReadonlyMap<string, readonly ReadOn[]>;
export type ReadOn = { readonly recipient: RecipientId; readonly until: number };

/** Everything that is read on now without asking. */
export async function allReadOn(db: Reading, now: number): Promise<AllReadOn> {
  const rows = await db.all<ReadOn & { readonly pair: string }>(sql`
    SELECT value || ' ' || l.document_id AS pair, l.recipient_id AS recipient,
      max(l.offline_until) AS until FROM licences l JOIN grants g ON g.id = l.grant_id,
      json_each(json_array(l.recipient_id, g.recipient_id))
      WHERE l.offline_until > ${now} GROUP BY pair, l.recipient_id`);
  return groupBy(rows, ({ pair }) => pair);
}

/** Until when the last device of each person reads on. */
export function latestByPerson(
  running: Awaited<ReturnType<typeof runningOffline>>,
): ReadonlyMap<RecipientId, number> {
  const found = new Map<RecipientId, number>();
  for (const { recipient, until } of running)
    found.set(recipient, Math.max(until, found.get(recipient) ?? 0));
  return found;
}
