import 'server-only';
import { and, count, desc, eq, gt, inArray, lt, ne, sql, type SQL } from 'drizzle-orm';
import type { DispatchId, LicenceId, StaffId } from '@/core/base/ids';
import type { EntryFilter, Span } from '@/core/insight/filter';
import type { Action, Entry } from '@/core/ledger/entry';
import type { Reading } from '@/server/db/database';
import { ledgerEntries, ledgerPersonal } from '@/server/db/schema/ledger';
import { conditionsOf } from '@/server/repositories/ledger/ledger-conditions';

export type EntryRow = {
  readonly entry: Entry;
  readonly hash: string;
  readonly personal: Readonly<Record<string, string>>;
};

/** What happens again and again within one open, and is told with it. */
const WITHIN_AN_OPEN = [
  'page.shown',
  'text.sent',
  'text.searched',
  'key.unwrapped',
] as const satisfies readonly Action[];

/** Whether an entry is told with the open it belongs to, which itself began within the span. */
function isFolded({ begins }: Span): SQL {
  const shown = sql`SELECT 1 FROM ledger_entries o WHERE o.licence_id = ${ledgerEntries.licenceId}
    AND o.action IN ('document.opened',
    'document.checked')${begins === undefined ? sql`` : sql` AND o.occurred_at >= ${begins}`}`;
  return sql`(${inArray(ledgerEntries.action, [...WITHIN_AN_OPEN])}
    AND ${ledgerEntries.outcome} <> 'refused' AND ${ledgerEntries.licenceId} IS NOT NULL
    AND EXISTS (${shown}))`;
}

/** How many entries are told with each of these opens. */
export async function foldedInto(
  db: Reading,
  licences: readonly LicenceId[],
): Promise<Map<string, number>> {
  if (licences.length === 0) return new Map();
  const rows = await db
    .select({ licence: ledgerEntries.licenceId, entries: count() })
    .from(ledgerEntries)
    .where(
      and(
        inArray(ledgerEntries.licenceId, [...licences]),
        inArray(ledgerEntries.action, [...WITHIN_AN_OPEN]),
        ne(ledgerEntries.outcome, 'refused'),
      ),
    )
    .groupBy(ledgerEntries.licenceId);
  return new Map(rows.map(({ licence, entries }) => [licence ?? '', entries]));
}

/** What happened within one open, the oldest first. */
export async function entriesOfOpen(
  db: Reading,
  licence: LicenceId,
  own: StaffId | undefined,
  limit: number,
): Promise<EntryRow[]> {
  const where = and(
    eq(ledgerEntries.licenceId, licence),
    inArray(ledgerEntries.action, [...WITHIN_AN_OPEN]),
    ne(ledgerEntries.outcome, 'refused'),
    ...conditionsOf({ own }, {}),
  );
  return withPersonal(
    db,
    await db
      .select({
        sequence: ledgerEntries.sequence,
        body: ledgerEntries.body,
        hash: ledgerEntries.hash,
      })
      .from(ledgerEntries)
      .where(where)
      .orderBy(ledgerEntries.sequence)
      .limit(limit),
  );
}

/**
 * The newest entries that pass the filter, newest first, older than `before` where given. `folded`:
 * without those that are told with an open.
 */
export async function listEntries(
  db: Reading,
  filter: EntryFilter,
  limit: number,
  before?: number,
  span: Span = {},
  folded = false,
): Promise<EntryRow[]> {
  const where = [
    ...conditionsOf(filter, span),
    ...(before === undefined ? [] : [lt(ledgerEntries.sequence, before)]),
    ...(folded ? [sql`NOT ${isFolded(span)}`] : []),
  ];
  const rows = await db
    .select({
      sequence: ledgerEntries.sequence,
      body: ledgerEntries.body,
      hash: ledgerEntries.hash,
    })
    .from(ledgerEntries)
    .where(and(...where))
    .orderBy(desc(ledgerEntries.sequence))
    .limit(limit);
  return withPersonal(db, rows);
}

async function withPersonal(
  db: Reading,
  rows: readonly { readonly sequence: number; readonly body: string; readonly hash: string }[],
): Promise<EntryRow[]> {
  if (rows.length === 0) return [];
  const values = await db
    .select({
      sequence: ledgerPersonal.sequence,
      field: ledgerPersonal.field,
      value: ledgerPersonal.value,
    })
    .from(ledgerPersonal)
    .where(
      inArray(
        ledgerPersonal.sequence,
        rows.map((row) => row.sequence),
      ),
    );
  const personal = new Map<number, Record<string, string>>();
  for (const { sequence, field, value } of values)
    personal.set(sequence, { ...personal.get(sequence), [field]: value });
  return rows.map(({ sequence, body, hash }) => ({
    entry: JSON.parse(body) as Entry,
    hash,
    personal: personal.get(sequence) ?? {},
  }));
}

/** A statement for the next block of entries in (`after`, `before`), newest first, as lines of hash and body. */
export function entriesWhere(
  filter: EntryFilter,
  span: Span,
  { after, before }: { readonly after: number; readonly before: number },
  limit: number,
): SQL {
  const where = and(
    ...conditionsOf(filter, span),
    gt(ledgerEntries.sequence, after),
    lt(ledgerEntries.sequence, before),
  );
  return sql`SELECT group_concat(hash || ' ' || body, char(10)) AS rows
    FROM (SELECT ${ledgerEntries.hash}, ${ledgerEntries.body} FROM ${ledgerEntries} WHERE ${where}
    ORDER BY ${ledgerEntries.sequence} DESC LIMIT ${limit})`;
}

/** Personal values of some entries, newest first; as one text, since there may be thousands. */
export async function personalOf(
  db: Reading,
  sequences: readonly number[],
  fields: readonly string[],
): Promise<Map<number, Record<string, string>>> {
  const [oldest, newest] = [sequences.at(-1) ?? 0, sequences[0] ?? 0];
  // A stretch without gaps is one range; a sparse one names its few. The plus keeps the index by
  // field out, which would be read whole.
  const which =
    newest - oldest + 1 === sequences.length
      ? sql`sequence BETWEEN ${oldest} AND ${newest}`
      : sql`sequence IN (SELECT value FROM json_each(${JSON.stringify(sequences)}))`;
  const [got] = await db.all<{ found: string }>(
    sql`SELECT json_group_array(json_array(sequence, field, value)) AS found FROM ledger_personal
      WHERE ${which} AND +field IN (SELECT value FROM json_each(${JSON.stringify(fields)}))`,
  );
  const personal = new Map<number, Record<string, string>>();
  for (const [sequence, field, value] of JSON.parse(got?.found ?? '[]') as [
    number,
    string,
    string,
  ][]) {
    const own = personal.get(sequence);
    if (own === undefined) personal.set(sequence, { [field]: value });
    else own[field] = value;
  }
  return personal;
}

/** Most marks a picture is given; older ones are left out. */
const MOST_MARKS = 4_000;

/** Opens, refusals and prints of one dispatch, oldest first. */
export async function marksOf(db: Reading, dispatch: DispatchId) {
  const rows = await db
    .select({
      recipientId: ledgerEntries.recipientId,
      documentId: ledgerEntries.documentId,
      at: ledgerEntries.occurredAt,
      action: ledgerEntries.action,
      outcome: ledgerEntries.outcome,
    })
    .from(ledgerEntries)
    .where(
      and(
        eq(ledgerEntries.dispatchId, dispatch),
        inArray(ledgerEntries.action, ['document.opened', 'document.printed', 'grant.changed']),
        inArray(ledgerEntries.outcome, ['granted', 'refused', 'done']),
      ),
    )
    .orderBy(desc(ledgerEntries.sequence))
    .limit(MOST_MARKS);
  return rows.reverse();
}
