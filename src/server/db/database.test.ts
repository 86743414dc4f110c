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

describe('what decides is another', () => {
  const insert = (name: string) => (tx: Parameters<Parameters<Database['write']>[0]>[0]) =>
    tx.run(sql`CREATE TABLE IF NOT EXISTS ${sql.raw(name)} (n)`);

  test('after a job, at its beginning and once more when it is committed', async () => {
    const before = db.generation();
    const within = await db.write(async (tx) => {
      await insert('decided')(tx);
      return db.generation();
    });
    expect(within).toBeGreaterThan(before);
    expect(db.generation()).toBeGreaterThan(within);
  });

  test('not after one that decides nothing, however many share a commit', async () => {
    await db.writeAside(insert('shown'));
    const before = db.generation();
    await Promise.all(Array.from({ length: 20 }, () => db.writeAside(insert('shown'))));
    await Promise.all(Array.from({ length: 20 }, () => db.writeAside(insert('shown'))));
    expect(db.generation()).toBe(before);
  });

  test('for whatever another process wrote, as the next job sees it', async () => {
    await db.writeAside(insert('shown'));
    const before = db.generation();
    const other = await openDatabase(`file:${path.join(folder, 'test.db')}`);
    await other.write(insert('foreign_table'));
    await other.close();
    expect(await db.writeAside(() => Promise.resolve(db.generation()))).toBeGreaterThan(before);
  });

  test('and only what may wait waits for others to share a commit', async () => {
    const both = () =>
      Promise.all([db.writeTogether(insert('shown')), db.writeTogether(insert('shown'))]);
    const timed = async (work: () => Promise<unknown>): Promise<number> => {
      await both();
      const began = performance.now();
      await work();
      return performance.now() - began;
    };
    const aside = await timed(() =>
      Promise.all([db.writeTogether(insert('shown')), db.writeAside(insert('mailed'))]),
    );
    const alone = await timed(() => db.writeTogether(insert('shown')));
    const together = await timed(() =>
      Promise.all([db.writeTogether(insert('shown')), db.write(insert('decided'))]),
    );
    expect(together).toBeLessThan(alone);
    expect(aside).toBeLessThan(alone);
  });
});
