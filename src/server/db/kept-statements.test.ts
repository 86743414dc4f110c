import { createClient, type Client } from '@libsql/client/sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { keepStatements } from '@/server/db/kept-statements';

const folder = mkdtempSync(path.join(tmpdir(), 'embargo-kept-'));
let client: Client;

beforeAll(async () => {
  keepStatements();
  client = createClient({ url: `file:${path.join(folder, 'a.db')}`, concurrency: 1 });
  await client.execute('CREATE TABLE names (id INTEGER PRIMARY KEY, name TEXT UNIQUE)');
});
afterAll(() => {
  client.close();
  rmSync(folder, { recursive: true });
});

const add = (name: string) =>
  client.execute({ sql: 'INSERT INTO names (name) VALUES (?) RETURNING id', args: [name] });
const rename = (from: string, to: string) =>
  client.execute({ sql: 'UPDATE names SET name = ? WHERE name = ?', args: [to, from] });
const find = (name: string) =>
  client.execute({ sql: 'SELECT id, name FROM names WHERE name = ?', args: [name] });

describe('a statement that is kept', () => {
  test('takes each time what it is given, and gives what is there then', async () => {
    await add('one');
    await add('two');
    expect((await find('one')).rows[0]).toMatchObject({ name: 'one' });
    expect((await find('two')).rows[0]).toMatchObject({ name: 'two' });
    expect((await rename('two', 'three')).rowsAffected).toBe(1);
    expect((await rename('two', 'three')).rowsAffected).toBe(0);
    expect((await find('two')).rows).toHaveLength(0);
  });

  test('goes on after it failed', async () => {
    await add('four');
    await expect(add('four')).rejects.toMatchObject({ code: 'SQLITE_CONSTRAINT' });
    await expect(rename('four', 'one')).rejects.toMatchObject({ code: 'SQLITE_CONSTRAINT' });
    expect((await add('five')).rows).toHaveLength(1);
    expect((await rename('four', 'six')).rowsAffected).toBe(1);
  });

  test('sees a table as it is after it was changed, and holds nothing up', async () => {
    await find('one');
    await client.execute('ALTER TABLE names ADD COLUMN note TEXT');
    expect((await find('one')).columns).toEqual(['id', 'name']);
    await client.execute('DROP TABLE IF EXISTS other');
    const transaction = await client.transaction('write');
    await transaction.execute({ sql: 'INSERT INTO names (name) VALUES (?)', args: ['seven'] });
    await transaction.rollback();
    expect((await find('seven')).rows).toHaveLength(0);
  });

  test('is one of those used last, of however many there are', async () => {
    for (let i = 0; i < 500; i++)
      expect((await client.execute(`SELECT ${String(i)} AS n`)).rows[0]).toMatchObject({ n: i });
    expect((await find('one')).rows).toHaveLength(1);
  });
});
