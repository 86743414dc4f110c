import 'server-only';
import { and, count, desc, eq, gt, gte, inArray, lt, max, ne, sql, type SQL } from 'drizzle-orm';
import type {
  DispatchId,
  DocumentId,
  GrantId,
  LicenceId,
  RecipientId,
  StaffId,
  VersionId,
} from '@/core/base/ids';
import { toUtcText } from '@/core/base/time';
import type { StoredEntry } from '@/core/ledger/verify';
import type { EntryFilter, Span } from '@/core/insight/filter';
import { actionsThatChange } from '@/core/ledger/action-effects';
import type { Action, Entry } from '@/core/ledger/entry';
import type { Reading, Transaction } from '@/server/db/database';
import {
  ledgerCheckpoints,
  ledgerEnd,
  ledgerEntries,
  ledgerPersonal,
} from '@/server/db/schema/ledger';
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
        inArray(ledgerEntries.action, ['document.opened', 'document.printed']),
        inArray(ledgerEntries.outcome, ['granted', 'refused']),
      ),
    )
    .orderBy(desc(ledgerEntries.sequence))
    .limit(MOST_MARKS);
  return rows.reverse();
}

/** Who did something last, and when; null where nobody did. */
export async function lastDone(
  db: Reading,
  action: Action,
  of: { readonly document?: DocumentId; readonly recipient?: RecipientId; readonly grant?: string },
): Promise<{ readonly by: string | null; readonly at: number } | null> {
  const where = [
    eq(ledgerEntries.action, action),
    ...(of.document === undefined ? [] : [eq(ledgerEntries.documentId, of.document)]),
    ...(of.recipient === undefined ? [] : [eq(ledgerEntries.recipientId, of.recipient)]),
    ...(of.grant === undefined ? [] : [eq(ledgerEntries.grantId, of.grant)]),
  ];
  const [row] = await db
    .select({ body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(and(...where))
    .orderBy(desc(ledgerEntries.sequence))
    .limit(1);
  if (row === undefined) return null;
  const { actor, occurredAt } = JSON.parse(row.body) as Entry;
  return { by: actor.id, at: Date.parse(occurredAt) };
}

/** Whether a member of staff has opened this version of a document as a check since a moment. */
export async function wasChecked(
  db: Reading,
  document: DocumentId,
  version: VersionId,
  by: StaffId,
  since: number,
): Promise<boolean> {
  const where = and(
    eq(ledgerEntries.documentId, document),
    eq(ledgerEntries.action, 'document.checked'),
    eq(ledgerEntries.actorId, by),
    eq(ledgerEntries.versionId, version),
    gt(ledgerEntries.occurredAt, toUtcText(since)),
  );
  return (
    (
      await db
        .select({ sequence: ledgerEntries.sequence })
        .from(ledgerEntries)
        .where(where)
        .limit(1)
    ).length > 0
  );
}

/** Who changed each of these grants last, and when; those that nobody changed are missing. */
export async function lastChanges(
  db: Reading,
  grants: readonly GrantId[],
): Promise<Map<string, { readonly by: string | null; readonly at: number }>> {
  const last = db
    .select({ sequence: max(ledgerEntries.sequence).as('last') })
    .from(ledgerEntries)
    .where(
      and(eq(ledgerEntries.action, 'grant.changed'), inArray(ledgerEntries.grantId, [...grants])),
    )
    .groupBy(ledgerEntries.grantId);
  const rows = await db
    .select({ grant: ledgerEntries.grantId, body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(inArray(ledgerEntries.sequence, last));
  return new Map(
    rows.map(({ grant, body }) => {
      const { actor, occurredAt } = JSON.parse(body) as Entry;
      return [grant ?? '', { by: actor.id, at: Date.parse(occurredAt) }];
    }),
  );
}

/** The newest sequence number; 0 where nothing was recorded. */
export async function lastSequence(db: Reading | Transaction): Promise<number> {
  const [row] = await db.select({ last: max(ledgerEntries.sequence) }).from(ledgerEntries);
  return row?.last ?? 0;
}

/** What changes the access of whoever has the document, or of everybody; and of one person alone. */
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

/** The newest signed checkpoint and what has been written in all. */
export async function ledgerState(db: Reading): Promise<{
  readonly size: number;
  readonly signedSize: number;
  readonly signedAt: number | null;
}> {
  const [end] = await db
    .select({ size: ledgerEnd.size, signedSize: ledgerEnd.signedSize })
    .from(ledgerEnd);
  const [checkpoint] = await db
    .select({ createdAt: ledgerCheckpoints.createdAt })
    .from(ledgerCheckpoints)
    .orderBy(desc(ledgerCheckpoints.size))
    .limit(1);
  return {
    size: end?.size ?? 0,
    signedSize: end?.signedSize ?? 0,
    signedAt: checkpoint?.createdAt ?? null,
  };
}

export async function listCheckpoints(
  db: Reading,
): Promise<{ readonly size: number; readonly text: string }[]> {
  return db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .orderBy(ledgerCheckpoints.size);
}

/** The newest signed checkpoint; null where nothing was signed yet. */
export async function lastCheckpoint(
  db: Reading,
): Promise<{ readonly size: number; readonly text: string } | null> {
  const [row] = await db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .orderBy(desc(ledgerCheckpoints.size))
    .limit(1);
  return row ?? null;
}

/** Entries joined inside SQLite: a row handed over costs more than the text in it. */
const BLOCK = 4000;

/** Every stored entry in order, in blocks, as text that has not been looked into. */
export async function* storedEntries(db: Reading): AsyncGenerator<StoredEntry[]> {
  // Canonical JSON never holds a raw line break, so one separates entries without doubt.
  for (let from = 0; ;) {
    const [block] = await db.all<{ rows: string | null }>(sql`
      SELECT group_concat(sequence || ' ' || hash || ' ' || body, char(10)) AS rows
      FROM (SELECT sequence, hash, body FROM ledger_entries WHERE sequence > ${from}
      ORDER BY sequence LIMIT ${BLOCK})`);
    if (block?.rows == null) return;
    const entries = block.rows.split('\n').map(splitRow);
    yield entries;
    from = entries.at(-1)?.sequence ?? from;
  }
}

/** The leaf hashes of the first `size` entries in order, in hex, in blocks. */
export async function* storedHashes(db: Reading, size: number): AsyncGenerator<readonly string[]> {
  for (let from = 0; from < size; from += BLOCK) {
    const [block] = await db.all<{ hashes: string | null }>(
      sql`SELECT group_concat(hash, ' ') AS hashes FROM (SELECT hash FROM ledger_entries
        WHERE sequence > ${from} AND sequence <= ${Math.min(size, from + BLOCK)}
        ORDER BY sequence)`,
    );
    yield block?.hashes?.split(' ') ?? [];
  }
}

function splitRow(row: string): StoredEntry {
  const hashAt = row.indexOf(' ') + 1;
  const textAt = row.indexOf(' ', hashAt) + 1;
  return {
    sequence: Number(row.slice(0, hashAt - 1)),
    hash: row.slice(hashAt, textAt - 1),
    text: row.slice(textAt),
  };
}

/** Personal values with their salts, for entries in (`after`, `upTo`]. */
export async function personalBetween(
  db: Reading,
  after: number,
  upTo: number,
): Promise<
  {
    readonly sequence: number;
    readonly field: string;
    readonly salt: Uint8Array;
    readonly value: string;
  }[]
> {
  return db
    .select()
    .from(ledgerPersonal)
    .where(
      and(sql`${ledgerPersonal.sequence} > ${after}`, sql`${ledgerPersonal.sequence} <= ${upTo}`),
    );
}

/** How many keys somebody destroyed since a moment without a second person. */
export async function destroyedAlone(
  db: Reading | Transaction,
  staff: StaffId,
  since: number,
): Promise<number> {
  const own = sql`json_extract(${ledgerEntries.body}, '$.actor.id') = ${staff}
    AND json_extract(${ledgerEntries.body}, '$.details.consent') IS NULL`;
  return db.$count(
    ledgerEntries,
    and(
      eq(ledgerEntries.action, 'key.destroyed'),
      gte(ledgerEntries.occurredAt, toUtcText(since)),
      own,
    ),
  );
}

/** The end of the ledger as it is stored; null where nothing was written yet. */
export async function storedEnd(
  db: Reading,
): Promise<{ readonly size: number; readonly hash: string } | null> {
  const [row] = await db.select({ size: ledgerEnd.size, hash: ledgerEnd.hash }).from(ledgerEnd);
  return row ?? null;
}

/** The columns that the database computes, with the member of the text that each holds. */
const COMPUTED: Readonly<Record<string, string>> = {
  occurred_at: 'occurredAt',
  action: 'action',
  outcome: 'outcome',
  document_id: 'document',
  recipient_id: 'recipient',
  dispatch_id: 'dispatch',
  grant_id: 'grant',
  reason: 'reason',
  actor_id: 'actor.id',
  device_id: 'device',
  version_id: 'version',
  licence_id: 'licence',
  link_of: 'details.linkOf',
};

/**
 * The first entry whose columns, which the database computes, are not what its text says or are
 * gone: their definition was changed.
 */
export async function misreadColumns(db: Reading): Promise<number[]> {
  const there = new Set(
    (
      await db.all<{ name: string }>(sql`SELECT name FROM pragma_table_xinfo('ledger_entries')`)
    ).map(({ name }) => name),
  );
  const isWhole = Object.keys(COMPUTED).every((column) => there.has(column));
  const differs = isWhole
    ? sql.join(
        Object.entries(COMPUTED).map(([column, name]) =>
          sql.raw(`${column} IS NOT json_extract(body, '$.${name}')`),
        ),
        sql` OR `,
      )
    : sql`1`;
  const rows = await db.all<{ sequence: number }>(
    sql`SELECT sequence FROM ledger_entries WHERE ${differs} ORDER BY sequence LIMIT 1`,
  );
  return rows.map(({ sequence }) => sequence);
}

/** What is counted beside the entries, by kind, outcome and reason. */
export async function countsByKind(db: Reading): Promise<
  {
    readonly kind: string;
    readonly outcome: string;
    readonly reason: string;
    readonly entries: number;
  }[]
> {
  return db.all(
    sql`SELECT kind, outcome, reason, sum(entries) AS entries FROM ledger_days GROUP BY kind, outcome, reason`,
  );
}

/** Signed checkpoints that cover more than so many entries. */
export async function checkpointsAfter(
  db: Reading,
  size: number,
): Promise<{ readonly size: number; readonly text: string }[]> {
  return db
    .select({ size: ledgerCheckpoints.size, text: ledgerCheckpoints.text })
    .from(ledgerCheckpoints)
    .where(gt(ledgerCheckpoints.size, size))
    .orderBy(ledgerCheckpoints.size);
}

/** When the newest entry was written, in ms; 0 where there is none. */
export async function newestMoment(db: Reading): Promise<number> {
  const [row] = await db.all<{ at: string | null }>(
    sql`SELECT json_extract(body, '$.receivedAt') AS at FROM ledger_entries ORDER BY sequence DESC LIMIT 1`,
  );
  return row?.at == null ? 0 : Date.parse(row.at);
}
