import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { openDatabase, type Database } from '@/server/db/database';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';
import { mendTexts, nameOfUnreadable, unreadableTexts } from '@/server/db/unreadable';

let folder: string;
let db: Database;
const harm = async (statement: string) => {
  const outside = createClient({ url: `file:${path.join(folder, 'test.db')}` });
  await outside.execute(statement);
  outside.close();
};
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-unreadable-'));
  db = await openDatabase(`file:${path.join(folder, 'test.db')}`);
  await db.write((tx) =>
    tx.insert(recipients).values([
      { id: 'rcp_a', address: 'a@x.example', name: 'Ölund', organisation: '図面', createdAt: 0 },
      { id: 'rcp_b', address: 'b@x.example', name: 'Tom', organisation: '', createdAt: 0 },
    ]),
  );
  await db.write((tx) =>
    tx
      .insert(ledgerEntries)
      .values({ sequence: 1, body: '{"action":"page.shown","reason":null}', hash: 'h' }),
  );
});
afterEach(async () => {
  await db.close();
  rmSync(folder, { recursive: true });
});
const all = () => unreadableTexts(db.read, () => true);

test('text in any script is readable', async () => {
  expect(await all()).toEqual([]);
});

test.each([
  [
    'a name',
    "UPDATE recipients SET name = CAST(x'54ff6d' AS TEXT) WHERE id = 'rcp_b'",
    'name of rcp_b in recipients',
  ],
  [
    'text cut inside a letter',
    "UPDATE recipients SET name = CAST(x'c3' AS TEXT) WHERE id = 'rcp_a'",
    'name of rcp_a in recipients',
  ],
  [
    'a key',
    "UPDATE recipients SET id = CAST(x'7263705fe9' AS TEXT) WHERE id = 'rcp_b'",
    'id of rcp_\ufffd in recipients',
  ],
  [
    'an entry of the ledger',
    `UPDATE ledger_entries SET body = CAST(x'7b22616374696f6e223a22ff227d' AS TEXT)`,
    'body of 1 in ledger_entries',
  ],
])(
  '%s with a bit turned is found, mended so far that it can be read, and found no more',
  async (_what, statement, name) => {
    await harm(statement);
    const found = await all();
    expect(found.map(nameOfUnreadable)).toContain(name);
    await db.write((tx) => mendTexts(tx, found));
    expect(await all()).toEqual([]);
    expect(await db.read.select().from(recipients)).toHaveLength(2);
    expect(await db.read.select().from(ledgerEntries)).toHaveLength(1);
  },
);
