// The same request come twice makes one thing; and what goes on while the disk is full.
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openDatabase } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { requestsDone } from '@/server/db/schema/organisation';
import { STAFF } from '@/words/problem-text';
import { respondError } from '@/server/http/respond';
import { actOnce } from '@/server/services/base/act-once';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { isDiskFull } from '@/core/base/disk-full';
import { createReserve } from '@/server/storage/reserve';
import { START, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
beforeEach(async () => {
  product = await startProduct();
});
afterEach(async () => {
  await product.close();
});

const KEY = { who: 'stf_1', key: 'a-key-of-their-own', what: 'POST /api/v1/dispatches {}' };
async function newDispatch() {
  const documents = [await protect(product, await drawing(1))];
  const input = {
    documents,
    recipients: [{ address: 'mira@yard.example', name: '', organisation: '' }],
    terms: { rights: ['read' as const], from: null, until: START + 1, prints: null },
    subject: 's',
    note: '',
    watermark: [],
    delivery: 'by-hand' as const,
  };
  return () =>
    dispatchDocuments(product.deps, product.ida, {
      ...input,
      terms: { ...input.terms, until: null },
    });
}

describe('a request that comes again', () => {
  test('with its key is answered as before and does nothing; twenty at once make one', async () => {
    const send = await newDispatch();
    const answers = await Promise.all(
      Array.from({ length: 20 }, () => actOnce(product.deps, KEY, send)),
    );
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(await actOnce(product.deps, KEY, send)).toEqual(answers[0]);
    expect(await product.deps.db.read.$count(dispatches)).toBe(1);
  });

  test('with the key of another is refused, and another person’s same key is another', async () => {
    const send = await newDispatch();
    await actOnce(product.deps, KEY, send);
    await expect(
      actOnce(product.deps, { ...KEY, what: 'POST /api/v1/dispatches {"other":1}' }, send),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await actOnce(product.deps, { ...KEY, who: 'stf_2' }, send);
    expect(await product.deps.db.read.$count(dispatches)).toBe(2);
  });

  test('after one that failed is carried out', async () => {
    const send = await newDispatch();
    await expect(
      actOnce(product.deps, KEY, () =>
        product.deps.db.write(() => Promise.reject(new Error('no'))),
      ),
    ).rejects.toThrow('no');
    expect(await product.deps.db.read.$count(requestsDone)).toBe(0);
    await expect(actOnce(product.deps, KEY, send)).resolves.toHaveProperty('id');
  });
});

describe('on a full disk', () => {
  test('the reserve is given up, and what failed for want of room is done', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'embargo-full-'));
    const reserve = createReserve(path.join(folder, 'reserve'));
    reserve.take();
    let pages = 0;
    const db = await openDatabase(`file:${path.join(folder, 'a.db')}`, () => {
      const had = reserve.giveUp();
      pages = 1_000_000;
      return had;
    });
    const fill = (bytes: number) =>
      db.write(async (tx) => {
        // What a full disk answers with, brought about by a limit on the file's pages; lifted with the reserve.
        await tx.run(
          sql.raw(
            pages === 0 ? 'PRAGMA max_page_count = 1' : `PRAGMA max_page_count = ${String(pages)}`,
          ),
        );
        await tx.run(
          sql`INSERT INTO mailroom (id, to_address, from_address, subject, raw, received_at)
            VALUES (${`msg_${String(bytes)}`}, '', '', '', ${'x'.repeat(bytes)}, 0)`,
        );
      });
    await expect(fill(5_000_000)).resolves.toBeUndefined();
    expect(reserve.giveUp()).toBe(false);
    pages = 0;
    const error: unknown = await fill(9_000_000).catch((cause: unknown) => cause);
    expect(isDiskFull(error)).toBe(true);
    await db.close();
    rmSync(folder, { recursive: true });
    const { log } = product.container;
    const answers = await Promise.all(
      ([STAFF, { audience: 'recipient', language: 'en' }] as const).map(async (reader) => {
        const response = respondError(error, log, reader);
        return [
          response.status,
          ((await response.json()) as { error: { message: string } }).error.message,
        ];
      }),
    );
    expect(answers).toEqual([
      [507, expect.stringContaining('no room left')],
      [507, expect.stringContaining('Try again later')],
    ]);
  });

  test('a page of the database that is harmed is a sentence', async () => {
    const response = respondError(
      Object.assign(new Error('database disk image is malformed'), { code: 'SQLITE_CORRUPT' }),
      product.container.log,
      STAFF,
    );
    expect(await response.json()).toMatchObject({
      error: { code: 'DAMAGED', message: expect.stringContaining('damaged') as string },
    });
  });
});
