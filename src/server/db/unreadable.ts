import { sql } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';

/** A text in the database that is not UTF-8 any more: the disk, or somebody, changed its bytes. */
export type Unreadable = {
  readonly table: string;
  readonly row: string;
  readonly column: string;
  readonly bytes: Uint8Array;
};

/** Tables that grow without end, which are looked through beside everything else. */
export const LONG_TABLES: readonly string[] = [
  'ledger_entries',
  'ledger_personal',
  'mailroom',
  'outbox',
];

type Columns = {
  readonly table: string;
  readonly columns: readonly string[];
  readonly keys: readonly string[];
};

/**
 * Stored text columns of every table of ours, and what a row is named by. Names come as hexadecimal
 * digits: they may be harmed as well.
 */
async function textColumns(db: Reading | Transaction): Promise<Columns[]> {
  const rows = await db.all<{ name: string; columns: string; keys: string }>(sql`
    SELECT m.name AS name, json_group_array(p.name) FILTER (WHERE p.type = 'TEXT'
    AND p.hidden IN (0, 3)) AS columns, json_group_array(p.name) FILTER (WHERE p.pk > 0) AS keys
    FROM sqlite_master m JOIN pragma_table_xinfo(m.name) p WHERE m.type = 'table'
    AND m.name NOT LIKE 'sqlite_%' AND m.name <> '__drizzle_migrations' GROUP BY m.name`);
  return rows
    .map(({ name, columns, keys }) => ({
      table: name,
      columns: JSON.parse(columns) as string[],
      keys: JSON.parse(keys) as string[],
    }))
    .filter(({ columns }) => columns.length > 0);
}

/** Matches what holds anything but plain letters: all that can be harmed this way. */
const NOT_PLAIN = `*[^${String.fromCharCode(1)}-${String.fromCharCode(127)}]*`;
/** Rows handed over at a time. */
const BLOCK = 500;

/**
 * Texts that are not UTF-8. The database's driver ends the whole process over one, so they are read
 * as bytes: this, and nothing else, can be done before they are mended.
 */
export async function unreadableTexts(
  db: Reading | Transaction,
  which: (table: string) => boolean,
): Promise<Unreadable[]> {
  const found: Unreadable[] = [];
  for (const { table, columns, keys } of await textColumns(db)) {
    if (!which(table)) continue;
    for (const column of columns) {
      // A row is named by its keys as bytes: text among them may be what is harmed.
      const key =
        keys.length === 0
          ? `CAST(rowid AS TEXT)`
          : keys.map((name) => `hex(CAST("${name}" AS BLOB))`).join(` || ' ' || `);
      for (let from = 0; ; from += BLOCK) {
        const rows = await db.all<{ row: string; bytes: string }>(
          sql`SELECT ${sql.raw(key)} AS row, hex(CAST(${sql.raw(`"${column}"`)} AS BLOB)) AS bytes
            FROM ${sql.raw(`"${table}"`)} WHERE ${sql.raw(`"${column}"`)} GLOB ${NOT_PLAIN}
            LIMIT ${BLOCK} OFFSET ${from}`,
        );
        for (const { row, bytes } of rows) {
          const content = Buffer.from(bytes, 'hex');
          if (!isUtf8(content)) found.push({ table, row, column, bytes: content });
        }
        if (rows.length < BLOCK) break;
      }
    }
  }
  return found;
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

/** What stands for a text that made no sense any more where it has to be JSON. */
const NO_JSON = '{}';

/**
 * Puts in the place of each unreadable text what of it can be read, so that the process survives
 * meeting it. It is not made right by that: a sealed row opens nothing, and an entry of the ledger
 * is found altered.
 */
export async function mendTexts(tx: Transaction, found: readonly Unreadable[]): Promise<void> {
  const keysOf = new Map((await textColumns(tx)).map(({ table, keys }) => [table, keys]));
  for (const { table, row, column, bytes } of found) {
    const keys = keysOf.get(table) ?? [];
    const where =
      keys.length === 0
        ? sql`rowid = ${Number(row)}`
        : sql.join(
            row
              .split(' ')
              .map(
                (part, i) =>
                  sql`CAST(${sql.raw(`"${keys[i] ?? ''}"`)} AS BLOB) = ${Buffer.from(part, 'hex')}`,
              ),
            sql` AND `,
          );
    const text = new TextDecoder().decode(bytes);
    const put = (value: string) =>
      tx.run(
        sql`UPDATE ${sql.raw(`"${table}"`)} SET ${sql.raw(`"${column}"`)} = ${value} WHERE ${where}`,
      );
    // Where columns are computed from it, it has to be JSON still; one that is computed itself is computed anew.
    await put(text)
      .catch(() => put(NO_JSON))
      .catch(() => tx.run(sql`UPDATE ${sql.raw(`"${table}"`)} SET body = body WHERE ${where}`));
  }
}

/** A harmed text in words: where it stands, by what can be said of it. */
export function nameOfUnreadable({ table, row, column }: Unreadable): string {
  const keys = row
    .split(' ')
    .map((part) => new TextDecoder().decode(Buffer.from(part, 'hex')))
    .join(' ');
  return `${column} of ${keys} in ${table}`;
}
