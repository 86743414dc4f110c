import { getTableColumns } from 'drizzle-orm';
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { toSnakeCase } from 'drizzle-orm/casing';
import { tables } from '@/server/db/schema/tables';

/**
 * Seals: who can write to the database without the master key can open nothing by it unseen.
 *
 * Every row that decides about access carries a keyed hash over all its columns. Rows are sealed
 * just before the commit of whatever changed them through this product: temporary triggers, which
 * exist on its own connection alone, note what was changed. What all seals of a table add up to,
 * how many there are, and where the ledger ended, is kept sealed as well, so that a row that was
 * removed or put back to what it once was is missed when the sums are compared.
 */
const TABLES = {
  organisation: tables.organisation,
  staff: tables.staff,
  staff_sessions: tables.staffSessions,
  staff_accounts: tables.staffAccounts,
  service_keys: tables.serviceKeys,
  documents: tables.documents,
  folders: tables.folders,
  markings: tables.markings,
  versions: tables.versions,
  recipients: tables.recipients,
  dispatches: tables.dispatches,
  held_dispatches: tables.heldDispatches,
  group_members: tables.groupMembers,
  ceilings: tables.ceilings,
  sender_limits: tables.senderLimits,
  rules: tables.rules,
  level_defaults: tables.levelDefaults,
  grants: tables.grants,
  links: tables.links,
  devices: tables.devices,
  passkeys: tables.passkeys,
  licences: tables.licences,
  reading_aids: tables.readingAids,
} as const satisfies Record<string, SQLiteTable>;

/** A table whose rows decide about something, each under a seal. */
export type SealedTable = keyof typeof TABLES;

export const SEALED_TABLES = Object.keys(TABLES) as readonly SealedTable[];

type Column = { readonly name: string; readonly isKey: boolean };

const columnsByTable = new Map<SealedTable, readonly Column[]>(
  SEALED_TABLES.map((table) => {
    const columns: Readonly<Record<string, SQLiteColumn>> = getTableColumns<SQLiteTable>(
      TABLES[table],
    );
    const named = Object.values(columns).map(({ name, primary }) => ({
      name: toSnakeCase(name),
      isKey: primary,
    }));
    return [table, named.filter(({ name }) => name !== 'seal')];
  }),
);

/** The columns of a table as the database knows them, but for the seal itself. */
export function columnsOf(table: SealedTable): readonly Column[] {
  return columnsByTable.get(table) ?? [];
}

/**
 * The text that is sealed, as SQL over a row called `row`: all columns in their order; bytes,
 * wherever they stand, in hexadecimal digits.
 */
export function bodyOf(table: SealedTable, row: string): string {
  return `json_array(${columnsOf(table)
    .map(
      ({ name }) =>
        `CASE typeof(${row}."${name}") WHEN 'blob' THEN 'x' || hex(${row}."${name}") ELSE ${row}."${name}" END`,
    )
    .join(', ')})`;
}

/** What a row is named by where its seal is broken: its first column, or two where those are its key. */
export function keyOf(table: SealedTable, row: string): string {
  const keys = columnsOf(table)
    .filter(({ isKey }) => isKey)
    .map(({ name }) => `${row}."${name}"`);
  return keys.length > 0
    ? `CAST(${keys.join(` || ' ' || `)} AS TEXT)`
    : columnsOf(table)
        .slice(0, 2)
        .map(({ name }) => `${row}."${name}"`)
        .join(` || ' ' || `);
}

/** Statements that note every change of a sealed row on this connection, with what it was before its first one. */
export function watching(): string[] {
  const noted = (table: SealedTable, row: string, values: string): string =>
    `INSERT INTO unsealed (name, row, born, seal, body) SELECT '${table}', ${row}.rowid, ` +
    `${values} WHERE NOT EXISTS (SELECT 1 FROM unsealed WHERE name = '${table}' AND row = ` +
    `${row}.rowid)`;
  return [
    'CREATE TEMP TABLE unsealed (name TEXT NOT NULL, row INTEGER NOT NULL, born INTEGER NOT ' +
      'NULL, seal BLOB, body TEXT, PRIMARY KEY (name, row)) WITHOUT ROWID',
    ...SEALED_TABLES.flatMap((table) => {
      const columns = columnsOf(table)
        .map(({ name }) => `"${name}"`)
        .join(', ');
      const old = `0, old.seal, ${bodyOf(table, 'old')}`;
      return [
        `CREATE TEMP TRIGGER seal_${table}_insert AFTER INSERT ON main.${table} BEGIN ` +
          `${noted(table, 'new', '1, NULL, NULL')}; END`,
        `CREATE TEMP TRIGGER seal_${table}_update AFTER UPDATE OF ${columns} ON main.${table} ` +
          `BEGIN ${noted(table, 'old', old)}; END`,
        `CREATE TEMP TRIGGER seal_${table}_delete AFTER DELETE ON main.${table} BEGIN ${noted(table, 'old', old)}; END`,
      ];
    }),
  ];
}
