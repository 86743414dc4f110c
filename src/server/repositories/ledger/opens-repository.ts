import 'server-only';
import { sql, type SQL } from 'drizzle-orm';
import type { Given, OpensFilter, PairCount } from '@/core/insight/opens';
import type { Reading } from '@/server/db/database';
import { ownDispatches, ownDocuments } from '@/server/repositories/ledger/own-repository';

function all(conditions: readonly (SQL | null)[]): SQL {
  return sql.join(
    conditions.filter((each) => each !== null),
    sql` AND `,
  );
}

function atOrganisation(recipient: string, organisation: string | undefined): SQL | null {
  return organisation === undefined
    ? null
    : sql`${sql.raw(recipient)} IN (SELECT id FROM recipients WHERE organisation = ${organisation})`;
}

/** What somebody on the staff answers for: as owner or deputy of the document, or as who sent it. */
function isOwn(document: string, dispatch: string, own: OpensFilter['own']): SQL | null {
  return own === undefined
    ? null
    : sql`(${sql.raw(document)} IN ${ownDocuments(own)} OR ${sql.raw(dispatch)} IN ${ownDispatches(own)})`;
}

function wherePairs({
  document,
  dispatch,
  recipient,
  organisation,
  from,
  to,
  own,
}: OpensFilter): SQL {
  return all([
    sql`p.kind IN ('opened', 'refused') AND p.recipient_id <> '' AND p.document_id <> ''`,
    document === undefined ? null : sql`p.document_id = ${document}`,
    dispatch === undefined ? null : sql`p.dispatch_id = ${dispatch}`,
    recipient === undefined ? null : sql`p.recipient_id = ${recipient}`,
    isOwn('p.document_id', 'p.dispatch_id', own),
    atOrganisation('p.recipient_id', organisation),
    from === undefined ? null : sql`p.day >= ${from}`,
    to === undefined ? null : sql`p.day <= ${to}`,
  ]);
}

/** Opens and refusals by person and document. As one text: a busy office has many of them. */
export async function opensByPair(db: Reading, asked: OpensFilter): Promise<PairCount[]> {
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(recipient_id, document_id, opens, refused, first, last)) AS found FROM (
      SELECT p.recipient_id, p.document_id, sum(CASE p.kind WHEN 'opened' THEN p.entries
      ELSE 0 END) AS opens, sum(CASE p.kind WHEN 'refused' THEN p.entries ELSE 0 END) AS refused,
        min(CASE p.kind WHEN 'opened' THEN p.day END) AS first, max(CASE p.kind WHEN 'opened' THEN p.day END) AS last
      FROM ledger_pairs p WHERE ${wherePairs(asked)} GROUP BY p.recipient_id, p.document_id)`);
  const rows = JSON.parse(got?.found ?? '[]') as [
    string,
    string,
    number,
    number,
    string | null,
    string | null,
  ][];
  return rows.map(([recipient, document, opens, refused, first, last]) => ({
    recipient,
    document,
    opens,
    refused,
    first,
    last,
  }));
}

/** On which days these people opened something, and how often. As one text: there may be a year of days for each. */
export async function openDays(
  db: Reading,
  people: readonly string[],
  asked: OpensFilter,
): Promise<{ readonly recipient: string; readonly day: string; readonly opens: number }[]> {
  const [got] = await db.all<{ found: string }>(sql`
    SELECT json_group_array(json_array(recipient, day, opens)) AS found FROM (
      SELECT p.recipient_id AS recipient, p.day AS day, sum(p.entries) AS opens FROM ledger_pairs p
      WHERE ${wherePairs(asked)} AND p.kind = 'opened' AND p.recipient_id IN (SELECT value
      FROM json_each(${JSON.stringify(people)})) GROUP BY p.recipient_id, p.day)`);
  return (JSON.parse(got?.found ?? '[]') as [string, string, number][]).map(
    ([recipient, day, opens]) => ({ recipient, day, opens }),
  );
}

/** Which people were given which documents, by themselves or as one of a group; `until`: given before that moment. */
export async function givenPairs(
  db: Reading,
  { document, dispatch, recipient, organisation, own }: OpensFilter,
  until: number,
): Promise<Given[]> {
  const where = all([
    sql`r.kind = 'person' AND g.given_at < ${until}`,
    document === undefined ? null : sql`g.document_id = ${document}`,
    dispatch === undefined ? null : sql`g.dispatch_id = ${dispatch}`,
    isOwn('g.document_id', 'g.dispatch_id', own),
    recipient === undefined ? null : sql`g.recipient_id = ${recipient}`,
    organisation === undefined ? null : sql`r.organisation = ${organisation}`,
  ]);
  const [got] = await db.all<{ found: string }>(
    sql`SELECT json_group_array(json_array(recipient_id, document_id)) AS found
      FROM (SELECT DISTINCT g.recipient_id, g.document_id FROM grants g
      JOIN recipients r ON r.id = g.recipient_id WHERE ${where})`,
  );
  return (JSON.parse(got?.found ?? '[]') as [string, string][]).map(([person, paper]) => ({
    recipient: person,
    document: paper,
  }));
}

export type OpenRow = {
  readonly sequence: number;
  readonly body: string;
  readonly version: number | null;
  readonly dispatch: string | null;
};

/** The opens and refused tries behind the counts, oldest first, from after a sequence number on. */
export async function openEntries(
  db: Reading,
  { document, dispatch, recipient, organisation, own }: OpensFilter,
  span: { readonly begins?: string | undefined; readonly ends?: string | undefined },
  after: number,
  most: number,
): Promise<OpenRow[]> {
  const where = all([
    sql`((e.action = 'document.opened' AND e.outcome = 'granted') OR e.outcome = 'refused')
      AND e.sequence > ${after} AND e.recipient_id IS NOT NULL AND e.document_id IS NOT NULL`,
    document === undefined ? null : sql`e.document_id = ${document}`,
    dispatch === undefined ? null : sql`e.dispatch_id = ${dispatch}`,
    recipient === undefined ? null : sql`e.recipient_id = ${recipient}`,
    isOwn('e.document_id', 'e.dispatch_id', own),
    atOrganisation('e.recipient_id', organisation),
    span.begins === undefined ? null : sql`e.occurred_at >= ${span.begins}`,
    span.ends === undefined ? null : sql`e.occurred_at < ${span.ends}`,
  ]);
  return db.all(sql`
    SELECT e.sequence AS sequence, e.body AS body, v.number AS version, d.reference AS dispatch FROM ledger_entries e
    LEFT JOIN versions v ON v.id = e.version_id LEFT JOIN dispatches d ON d.id = e.dispatch_id
    WHERE ${where} ORDER BY e.sequence LIMIT ${most}`);
}
