import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { openDatabase, type Database } from '@/server/db/database';
import { recipients } from '@/server/db/schema/people';

const folder = mkdtempSync(path.join(tmpdir(), 'embargo-db-'));
let db: Database;
beforeAll(async () => {
  db = await openDatabase(`file:${path.join(folder, 'test.db')}`);
});
afterAll(async () => {
  await db.close();
  rmSync(folder, { recursive: true });
});

const add = (n: number) =>
  db.write((tx) =>
    tx.insert(recipients).values({
      id: `rcp_${String(n)}`,
      address: `${String(n)}@ferrow.example`,
      name: '',
      organisation: '',
      createdAt: 0,
    }),
  );

describe('the write queue', () => {
  test('carries out many writes asked for at once', async () => {
    await Promise.all(Array.from({ length: 300 }, (_, n) => add(n)));
    expect(await db.read.$count(recipients)).toBe(300);
  });

  test('undoes a failed job alone, whole, and says so to its caller only', async () => {
    const failing = db.write(async (tx) => {
      await tx.insert(recipients).values({
        id: 'rcp_half',
        address: 'half@ferrow.example',
        name: '',
        organisation: '',
        createdAt: 0,
      });
      throw new Error('on purpose');
    });
    const [, failed] = await Promise.allSettled([add(1001), failing, add(1002)]);
    expect(failed).toMatchObject({ status: 'rejected', reason: { message: 'on purpose' } });
    expect(await db.read.$count(recipients)).toBe(302);
  });

  test('reads go on while a write is open', async () => {
    let during = -1;
    await db.write(async (tx) => {
      await tx.insert(recipients).values({
        id: 'rcp_open',
        address: 'open@ferrow.example',
        name: '',
        organisation: '',
        createdAt: 0,
      });
      during = await db.read.$count(recipients);
    });
    expect(during).toBe(302);
    expect(await db.read.$count(recipients)).toBe(303);
  });

  test('foreign keys hold, deleted bytes are overwritten', async () => {
    const [keys] = await db.read.all<{ foreign_keys: number }>(sql`PRAGMA foreign_keys`);
    expect(keys?.foreign_keys).toBe(1);
    await db.write(async (tx) => {
      const [row] = await tx.all<{ secure_delete: number }>(sql`PRAGMA secure_delete`);
      expect(row?.secure_delete).toBe(1);
    });
  });
});
