import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { openDatabase, type Database } from '@/server/db/database';
import { folders } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { createSeals, type BrokenSeal, type Seals } from '@/server/db/seals';

let folder: string;
let db: Database;
let seals: Seals;
let foreign: BrokenSeal[];
/** Somebody with the database and without the key. */
let outside: Client;
const KEY = new Uint8Array(32).fill(7);

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-seals-'));
  const url = `file:${path.join(folder, 'test.db')}`;
  db = await openDatabase(url);
  seals = createSeals(KEY);
  foreign = [];
  await db.sealWith(seals, (rows) => foreign.push(...rows));
  outside = createClient({ url });
});
afterEach(async () => {
  outside.close();
  await db.close();
  rmSync(folder, { recursive: true });
});

const add = (id: string) =>
  db.write((tx) =>
    tx.insert(recipients).values({
      id: `rcp_${id}`,
      address: `${id}@ferrow.example`,
      name: 'Tom "the" Ölund',
      organisation: '',
      createdAt: 0,
    }),
  );
const broken = () => seals.broken(db.read, { recipients: 'all' });
const unbalanced = () => seals.unbalanced(db.read, ['recipients', 'folders']);
const row = async (id: string) =>
  (
    await db.read
      .select()
      .from(recipients)
      .where(eq(recipients.id, `rcp_${id}`))
  )[0];

test('what is written, changed and removed through the product holds and balances', async () => {
  await Promise.all(['a', 'b', 'c'].map(add));
  await db.write((tx) =>
    tx.update(recipients).set({ name: 'Tom' }).where(eq(recipients.id, 'rcp_a')),
  );
  await db.write(async (tx) => {
    await tx.delete(recipients).where(eq(recipients.id, 'rcp_b'));
    await tx.run(sql`UPDATE recipients SET blocked = 1 WHERE id = 'rcp_c'`);
  });
  await db.write(async (tx) => {
    await tx.insert(folders).values({ id: 'fld_1', parentId: null, name: 'x', createdAt: 0 });
    await tx.delete(folders).where(eq(folders.id, 'fld_1'));
  });
  expect((await row('a'))?.seal).toHaveLength(16);
  expect(await broken()).toEqual([]);
  expect(await unbalanced()).toEqual([]);
  expect(await seals.isEndOurs(db.read)).toBe(true);
  expect(foreign).toEqual([]);
});

test('a job that fails leaves nothing to be sealed, and its neighbours are', async () => {
  const failing = db.write(async (tx) => {
    await tx.insert(recipients).values({
      id: 'rcp_f',
      address: 'f@ferrow.example',
      name: '',
      organisation: '',
      createdAt: 0,
    });
    throw new Error('no');
  });
  await Promise.all([add('a'), expect(failing).rejects.toThrow('no'), add('b')]);
  expect(await broken()).toEqual([]);
  expect(await unbalanced()).toEqual([]);
});

test('a transaction may change its own rows until it is sealed; rows that others slipped in are found', async () => {
  await add('a');
  await outside.execute(
    'INSERT INTO recipients (id, address, name, organisation, blocked, kind, created_at) ' +
      "VALUES ('rcp_x', 'x@elsewhere.example', '', '', 0, 'person', 0)",
  );
  await db.write(async (tx) => {
    await tx
      .update(recipients)
      .set({ name: 'Other' })
      .where(sql`true`);
    await tx.insert(recipients).values({
      id: 'rcp_n',
      address: 'n@ferrow.example',
      name: '',
      organisation: '',
      createdAt: 0,
    });
    expect(await seals.broken(tx, { recipients: 'all' })).toEqual([
      { table: 'recipients', key: 'rcp_x' },
    ]);
    expect(await seals.unbalanced(tx, ['recipients'])).toEqual([]);
  });
  expect(await broken()).toEqual([{ table: 'recipients', key: 'rcp_x' }]);
});

describe('somebody with the database', () => {
  beforeEach(async () => {
    await add('a');
    await add('b');
  });

  test.each([
    [
      'adds a row',
      'INSERT INTO recipients (id, address, name, organisation, blocked, kind, created_at) ' +
        "VALUES ('rcp_x', 'x@elsewhere.example', '', '', 0, 'person', 0)",
      'rcp_x',
    ],
    [
      'adds one with another’s seal',
      'INSERT INTO recipients (id, address, name, organisation, blocked, kind, created_at, ' +
        "seal) SELECT 'rcp_x', 'x@elsewhere.example', '', '', 0, 'person', 0, seal FROM " +
        "recipients WHERE id = 'rcp_a'",
      'rcp_x',
    ],
    [
      'changes one',
      "UPDATE recipients SET address = 'x@elsewhere.example' WHERE id = 'rcp_a'",
      'rcp_a',
    ],
    ['moves bytes into text', "UPDATE recipients SET name = x'00ff' WHERE id = 'rcp_a'", 'rcp_a'],
    ['takes its seal away', "UPDATE recipients SET seal = NULL WHERE id = 'rcp_a'", 'rcp_a'],
  ])('who %s is found', async (_what, statement, key) => {
    await outside.execute(statement);
    expect(await broken()).toEqual([{ table: 'recipients', key }]);
  });

  test('who removes a row, or puts one back to what it once was, is missed in the sums', async () => {
    await outside.execute("DELETE FROM recipients WHERE id = 'rcp_a'");
    expect(await broken()).toEqual([]);
    expect(await unbalanced()).toEqual(['recipients']);
    await add('c');
    expect(await unbalanced()).toEqual(['recipients']);
  });

  test('who puts a row and the sums back together is found by the end of the ledger and the sum of sums', async () => {
    const [before] = (await outside.execute("SELECT seal FROM recipients WHERE id = 'rcp_a'")).rows;
    const [sums] = (
      await outside.execute(
        "SELECT sum, rows, sequence, seal FROM table_sums WHERE name = 'recipients'",
      )
    ).rows;
    await db.write((tx) =>
      tx.update(recipients).set({ blocked: true }).where(eq(recipients.id, 'rcp_a')),
    );
    await outside.execute({
      sql: "UPDATE recipients SET blocked = 0, seal = ? WHERE id = 'rcp_a'",
      args: [before?.['seal'] ?? null],
    });
    expect(await unbalanced()).toEqual(['recipients']);
    await outside.execute({
      sql: "UPDATE table_sums SET sum = ?, rows = ?, sequence = ?, seal = ? WHERE name = 'recipients'",
      args: [
        sums?.['sum'] ?? null,
        sums?.['rows'] ?? null,
        sums?.['sequence'] ?? null,
        sums?.['seal'] ?? null,
      ],
    });
    expect(await unbalanced()).toEqual([]);
    expect(await seals.isEndOurs(db.read)).toBe(false);
  });

  test('whose row the product then changes does not have it sealed by that', async () => {
    await outside.execute(
      'INSERT INTO recipients (id, address, name, organisation, blocked, kind, created_at) ' +
        "VALUES ('rcp_x', 'x@elsewhere.example', '', '', 0, 'person', 0)",
    );
    await db.write((tx) =>
      tx
        .update(recipients)
        .set({ blocked: true })
        .where(sql`true`),
    );
    await db.write((tx) =>
      tx
        .update(recipients)
        .set({ blocked: false })
        .where(sql`true`),
    );
    expect(await broken()).toEqual([{ table: 'recipients', key: 'rcp_x' }]);
    expect(foreign.map(({ key }) => key)).toEqual(['rcp_x', 'rcp_x']);
    expect(await unbalanced()).toEqual(['recipients']);
    await db.write((tx) => tx.delete(recipients).where(eq(recipients.id, 'rcp_x')));
    expect(await unbalanced()).toEqual([]);
  });

  test('and another key finds nothing of theirs to be right', async () => {
    expect(
      await createSeals(new Uint8Array(32)).broken(db.read, { recipients: 'all' }),
    ).toHaveLength(2);
    expect(await createSeals(new Uint8Array(32)).unbalanced(db.read, ['recipients'])).toEqual([
      'recipients',
    ]);
  });
});

test('the database is its owner’s alone to read', () => {
  for (const name of ['test.db', 'test.db-wal', 'test.db-shm'])
    expect(statSync(path.join(folder, name)).mode & 0o777).toBe(0o600);
});

test('where the sums are taken away, nothing is sealed anew', async () => {
  await add('a');
  await db.write((tx) =>
    tx.run(
      sql`INSERT INTO ledger_end (id, size, hash, nodes, signed_size) VALUES (1, 5, 'h', x'', 0)`,
    ),
  );
  await db.close();
  await outside.execute("UPDATE recipients SET address = 'x@elsewhere.example'");
  await outside.execute('DELETE FROM table_sums');
  db = await openDatabase(`file:${path.join(folder, 'test.db')}`);
  await db.sealWith(seals, (rows) => foreign.push(...rows));
  await add('b');
  expect(await broken()).toEqual([{ table: 'recipients', key: 'rcp_a' }]);
  expect(await unbalanced()).toContain('recipients');
});
