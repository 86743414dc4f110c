import { createHmac, timingSafeEqual } from 'node:crypto';
import { sql, type SQL } from 'drizzle-orm';
import type { Reading, Transaction } from '@/server/db/database';
import {
  type SealedTable,
  bodyOf,
  keyOf,
  watching,
  SEALED_TABLES,
  columnsOf,
} from '@/server/db/sealed-tables';

/** A row that was not written by this product, or not as it stands. */
export type BrokenSeal = { readonly table: SealedTable; readonly key: string };

const SEAL_BYTES = 16;

/** Sums are taken modulo 2^128. */
const MODULUS = 1n << 128n;

/** The sum of sums, and where the ledger ended, stand under this name. */
const WHOLE = '*';

const among = (ids: readonly string[]): SQL =>
  sql`(SELECT value FROM json_each(${JSON.stringify(ids)}))`;

type Changed = {
  readonly row: number;
  readonly born: number;
  readonly seal: Uint8Array | null;
  readonly before: string | null;
  readonly here: number | null;
  readonly body: string | null;
  readonly key: string | null;
};

type Row = {
  readonly table: SealedTable;
  readonly row: number;
  readonly key: string;
  readonly seal: Uint8Array | null;
  readonly body: string;
};

type Noted = {
  readonly name: SealedTable;
  readonly row: number;
  readonly born: number;
  readonly seal: Uint8Array | null;
  readonly body: string | null;
};

type Sum = { readonly sum: bigint; readonly rows: number };

type LedgerPlace = { readonly size: number; readonly hash: string; readonly checkpoints: number };

function toNumber(seal: Uint8Array): bigint {
  return BigInt(`0x${Buffer.from(seal).toString('hex')}`);
}

function toBytes(sum: bigint): Buffer {
  return Buffer.from(
    (((sum % MODULUS) + MODULUS) % MODULUS).toString(16).padStart(SEAL_BYTES * 2, '0'),
    'hex',
  );
}

function equal(a: Uint8Array | null, b: Uint8Array): boolean {
  return a !== null && a.length === b.length && timingSafeEqual(a, b);
}

export type Seals = {
  /**
   * Notes changes from here on; to be called on the connection that writes, before each batch: it
   * does nothing where that is done.
   */
  readonly watch: (tx: Transaction) => Promise<void>;
  /**
   * Seals what the transaction changed.
   * @returns rows that were changed and had not been written by
   * this product before: they stay unsealed
   */
  readonly seal: (tx: Transaction) => Promise<BrokenSeal[]>;
  /** Of these rows the ones whose seal does not hold. */
  readonly broken: (
    db: Reading | Transaction,
    rows: Partial<Record<SealedTable, readonly string[] | 'all'>>,
  ) => Promise<BrokenSeal[]>;
  /** Tables of which rows are missing, added or put back to what they once were, as their sums show. */
  readonly unbalanced: (
    db: Reading | Transaction,
    tables: readonly SealedTable[],
  ) => Promise<SealedTable[]>;
  /** Whether the end of the ledger, and the number of its checkpoints, are those that were there at the last commit. */
  readonly isEndOurs: (db: Reading | Transaction) => Promise<boolean>;
};

/** Seals under a key of their own, which follows from the master key. */
export function createSeals(key: Uint8Array): Seals {
  const mac = (text: string): Buffer =>
    createHmac('sha256', key).update(text).digest().subarray(0, SEAL_BYTES);
  const sealOf = (table: SealedTable, body: string): Buffer => mac(`row ${table}\n${body}`);
  const sumSeal = (name: string, sum: Uint8Array, rows: number, sequence: number): Buffer =>
    mac(`sum ${name}\n${Buffer.from(sum).toString('hex')} ${String(rows)} ${String(sequence)}`);
  const endSeal = (sums: string, { size, hash, checkpoints }: LedgerPlace): Buffer =>
    mac(`end\n${sums}\n${String(size)} ${hash} ${String(checkpoints)}`);

  /** Whether a row was this product's before a transaction changed it, or was made by it. */
  const isOurs = ({ name, born, seal, body }: Noted): boolean =>
    born === 1 ||
    (body !== null && equal(seal === null ? null : new Uint8Array(seal), sealOf(name, body)));

  const readSum = async (
    db: Reading | Transaction,
    name: string,
  ): Promise<{
    readonly stored: Uint8Array;
    readonly rows: number;
    readonly sequence: number;
    readonly isOurs: boolean;
  } | null> => {
    const [row] = await db.all<{
      sum: Uint8Array;
      rows: number;
      sequence: number;
      seal: Uint8Array;
    }>(sql`SELECT sum, rows, sequence, seal FROM table_sums WHERE name = ${name}`);
    if (row === undefined) return null;
    return {
      stored: new Uint8Array(row.sum),
      rows: row.rows,
      sequence: row.sequence,
      isOurs: equal(
        new Uint8Array(row.seal),
        sumSeal(name, new Uint8Array(row.sum), row.rows, row.sequence),
      ),
    };
  };

  const writeSum = async (
    tx: Transaction,
    name: string,
    { sum, rows }: Sum,
    sequence: number,
  ): Promise<void> => {
    const bytes = toBytes(sum);
    const seal = sumSeal(name, bytes, rows, sequence);
    await tx.run(
      sql`INSERT INTO table_sums (name, sum, rows, sequence, seal)
        VALUES (${name}, ${bytes}, ${rows}, ${sequence}, ${seal}) ON CONFLICT (name) DO UPDATE
        SET sum = excluded.sum, rows = excluded.rows, sequence = excluded.sequence,
        seal = excluded.seal`,
    );
  };

  /** Everything as it stands is taken to be ours: on a database that is new. */
  const sealAll = async (tx: Transaction, table: SealedTable): Promise<Sum> => {
    const rows = await tx.all<{ row: number; body: string }>(
      sql`SELECT t.rowid AS row, ${sql.raw(bodyOf(table, 't'))} AS body FROM ${sql.raw(table)} t`,
    );
    const sealed = rows.map(({ row, body }) => [row, sealOf(table, body)] as const);
    await writeSeals(tx, table, sealed);
    return { sum: sealed.reduce((sum, [, seal]) => sum + toNumber(seal), 0n), rows: rows.length };
  };

  const endOf = async (db: Reading | Transaction): Promise<LedgerPlace> => {
    const [end] = await db.all<LedgerPlace>(
      sql`SELECT coalesce((SELECT size FROM ledger_end), 0) AS size, coalesce((SELECT hash
        FROM ledger_end), '') AS hash, (SELECT count(*) FROM ledger_checkpoints) AS checkpoints`,
    );
    return end ?? { size: 0, hash: '', checkpoints: 0 };
  };
  const allSums = async (db: Reading | Transaction): Promise<string> => {
    const [row] = await db.all<{ sums: string }>(
      sql`SELECT json_group_array(hex(seal)) AS sums FROM (SELECT seal FROM table_sums
        WHERE name <> ${WHOLE} ORDER BY name)`,
    );
    return row?.sums ?? '';
  };

  const sealEnd = async (tx: Transaction, end: LedgerPlace, changed: boolean): Promise<void> => {
    const [known] = await tx.all<{ size: number; checkpoints: number }>(
      sql`SELECT sequence AS size, rows AS checkpoints FROM table_sums WHERE name = ${WHOLE}`,
    );
    // Nothing that decides was changed, and the ledger stands where it stood.
    if (!changed && known?.size === end.size && known.checkpoints === end.checkpoints) return;
    const seal = endSeal(await allSums(tx), end);
    await tx.run(
      sql`INSERT INTO table_sums (name, sum, rows, sequence, seal)
        VALUES (${WHOLE}, x'', ${end.checkpoints}, ${end.size}, ${seal})
        ON CONFLICT (name) DO UPDATE SET rows = excluded.rows, sequence = excluded.sequence,
        seal = excluded.seal`,
    );
  };

  const sealTable = async (
    tx: Transaction,
    table: SealedTable,
    sequence: number,
  ): Promise<BrokenSeal[]> => {
    const changed = await tx.all<Changed>(sql`
      SELECT u.row AS row, u.born AS born, u.seal AS seal, u.body AS before, t.rowid AS here, CASE
      WHEN t.rowid IS NULL THEN NULL ELSE ${sql.raw(bodyOf(table, 't'))} END AS body,
      ${sql.raw(keyOf(table, 't'))} AS "key"
      FROM temp.unsealed u LEFT JOIN ${sql.raw(table)} t ON t.rowid = u.row WHERE u.name = ${table}`);
    const known = await readSum(tx, table);
    let sum = known === null ? 0n : toNumber(known.stored);
    let rows = known?.rows ?? 0;
    const foreign: BrokenSeal[] = [];
    const sealed: (readonly [number, Buffer])[] = [];
    for (const { row, born, seal, before, here, body, key: named } of changed) {
      const had = seal === null ? null : new Uint8Array(seal);
      if (!isOurs({ name: table, row, born, seal, body: before })) {
        // Not ours before, so not ours by being changed.
        foreign.push({ table, key: named ?? String(row) });
        continue;
      }
      if (had !== null && born === 0) {
        sum -= toNumber(had);
        rows--;
      }
      if (here === null || body === null) continue;
      const fresh = sealOf(table, body);
      sealed.push([here, fresh]);
      sum += toNumber(fresh);
      rows++;
    }
    await writeSeals(tx, table, sealed);
    await writeSum(tx, table, { sum, rows }, sequence);
    return foreign;
  };

  return {
    watch: async (tx) => {
      const [there] = await tx.all<{ tables: number }>(
        sql`SELECT count(*) AS tables FROM sqlite_temp_master WHERE name = 'unsealed'`,
      );
      if ((there?.tables ?? 0) > 0) return;
      for (const statement of watching()) await tx.run(sql.raw(statement));
      const [sums] = await tx.all<{ sums: number }>(sql`SELECT count(*) AS sums FROM table_sums`);
      const end = await endOf(tx);
      const { size } = end;
      // Only what is new is taken to be ours: on a database with a ledger, sums that are gone were taken away.
      if ((sums?.sums ?? 0) > 0 || size > 0) return;
      for (const table of SEALED_TABLES) await writeSum(tx, table, await sealAll(tx, table), size);
      await sealEnd(tx, end, true);
    },
    seal: async (tx) => {
      const names = await tx.all<{ name: SealedTable }>(
        sql`SELECT DISTINCT name FROM temp.unsealed`,
      );
      const end = await endOf(tx);
      const foreign: BrokenSeal[] = [];
      for (const { name } of names) foreign.push(...(await sealTable(tx, name, end.size)));
      if (names.length > 0) await tx.run(sql`DELETE FROM temp.unsealed`);
      await sealEnd(tx, end, names.length > 0);
      return foreign;
    },
    broken: async (db, wanted) => {
      const asked = (Object.entries(wanted) as [SealedTable, readonly string[] | 'all'][]).filter(
        ([, ids]) => ids.length > 0,
      );
      if (asked.length === 0) return [];
      const firstColumnOf = (table: SealedTable) =>
        sql.raw(`t."${columnsOf(table)[0]?.name ?? 'id'}"`);
      const each = asked.map(
        ([table, ids]) =>
          sql`SELECT ${table} AS "table", t.rowid AS row, ${sql.raw(keyOf(table, 't'))} AS "key",
            t.seal AS seal, ${sql.raw(bodyOf(table, 't'))} AS body FROM ${sql.raw(table)} t
            WHERE ${ids === 'all' ? sql`true` : sql`${firstColumnOf(table)} IN ${among(ids)}`}`,
      );
      const rows = await db.all<Row>(sql.join(each, sql` UNION ALL `));
      const found = rows.filter(
        ({ table, seal, body }) =>
          !equal(seal === null ? null : new Uint8Array(seal), sealOf(table, body)),
      );
      if (found.length === 0) return [];
      // What this transaction has changed is sealed at its end; until then it is ours if it was
      // before, or was made in it.
      const changed = await changedHere(db, found);
      return found
        .filter(
          ({ table, row }) =>
            !changed.some((each) => each.name === table && each.row === row && isOurs(each)),
        )
        .map(({ table, key: named }) => ({ table, key: named }));
    },
    unbalanced: async (db, tables) => {
      const found: SealedTable[] = [];
      const changed = await changedTables(db);
      for (const table of tables) {
        if (changed.includes(table)) continue;
        const [seals] = await db.all<{ seals: string }>(
          sql`SELECT json_group_array(hex(seal)) AS seals FROM ${sql.raw(table)}`,
        );
        const all = JSON.parse(seals?.seals ?? '[]') as string[];
        const known = await readSum(db, table);
        const sum = all.reduce(
          (total, seal) => total + (seal === '' ? 0n : BigInt(`0x${seal}`)),
          0n,
        );
        if (
          known?.isOurs !== true ||
          known.rows !== all.length ||
          !equal(known.stored, toBytes(sum))
        )
          found.push(table);
      }
      return found;
    },
    isEndOurs: async (db) => {
      const [row] = await db.all<{ seal: Uint8Array }>(
        sql`SELECT seal FROM table_sums WHERE name = ${WHOLE}`,
      );
      return (
        row !== undefined &&
        equal(new Uint8Array(row.seal), endSeal(await allSums(db), await endOf(db)))
      );
    },
  };
}

/** Whether this connection is the one that notes changes. */
async function notesChanges(db: Reading | Transaction): Promise<boolean> {
  const [there] = await db.all<{ tables: number }>(
    sql`SELECT count(*) AS tables FROM sqlite_temp_master WHERE name = 'unsealed'`,
  );
  return (there?.tables ?? 0) > 0;
}

/** What the open transaction has changed so far of these rows. */
async function changedHere(db: Reading | Transaction, rows: readonly Row[]): Promise<Noted[]> {
  if (!(await notesChanges(db))) return [];
  const keys = JSON.stringify(rows.map(({ table, row }) => [table, row]));
  return db.all<Noted>(
    sql`SELECT u.name AS name, u.row AS row, u.born AS born, u.seal AS seal, u.body AS body
      FROM json_each(${keys}) k JOIN temp.unsealed u ON u.name = k.value ->> 0
      AND u.row = k.value ->> 1`,
  );
}

/** Tables of which the open transaction has changed something. */
async function changedTables(db: Reading | Transaction): Promise<SealedTable[]> {
  if (!(await notesChanges(db))) return [];
  return (await db.all<{ name: SealedTable }>(sql`SELECT DISTINCT name FROM temp.unsealed`)).map(
    ({ name }) => name,
  );
}

async function writeSeals(
  tx: Transaction,
  table: SealedTable,
  sealed: readonly (readonly [number, Buffer])[],
): Promise<void> {
  if (sealed.length === 0) return;
  const rows = JSON.stringify(sealed.map(([row, seal]) => [row, seal.toString('hex')]));
  await tx.run(
    sql`UPDATE ${sql.raw(table)} SET seal = unhex(value ->> 1) FROM json_each(${rows})
      WHERE ${sql.raw(table)}.rowid = value ->> 0`,
  );
}
