import 'server-only';
import { and, desc, sql } from 'drizzle-orm';
import type { StoredEntry } from '@/core/ledger/verify';
import type { Reading } from '@/server/db/database';
import { ledgerCheckpoints, ledgerEnd, ledgerPersonal } from '@/server/db/schema/ledger';

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

/** When the newest entry was written, in ms; 0 where there is none. */
export async function newestMoment(db: Reading): Promise<number> {
  const [row] = await db.all<{ at: string | null }>(
    sql`SELECT json_extract(body, '$.receivedAt') AS at FROM ledger_entries ORDER BY sequence DESC LIMIT 1`,
  );
  return row?.at == null ? 0 : Date.parse(row.at);
}
