// The thread that writes the ledger out: whole and in order across its stretches, given up without
// a trace, worded where it fails.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { LedgerEvent } from '@/core/ledger/entry';
import { STRETCH, createLedgerExporter } from '@/server/exporting/ledger-exporter';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { exportLedger } from '@/server/services/ledger/list-entries';
import { record } from '@/server/services/base/record';
import { startProduct, type Product } from '../support/product';

let product: Product;
const MANY = 2 * STRETCH + 500;

beforeAll(async () => {
  product = await startProduct();
  const { deps } = product;
  const shown = (page: number): LedgerEvent => ({
    action: 'page.shown',
    outcome: page % 1_000 === 0 ? 'refused' : 'granted',
    ...(page % 1_000 === 0 ? { reason: 'expired' } : {}),
    actor: { kind: 'stranger', id: null },
    occurredAt: deps.clock.now(),
    details: { page },
    personal: {
      address: `=person${String(page)}@yard.example`,
      place: 'Kelder, within about 50 km',
    },
  });
  for (let from = 0; from < MANY; from += 2_000)
    await deps.db.write((tx) =>
      record(
        deps,
        tx,
        ...Array.from({ length: Math.min(2_000, MANY - from) }, (_, i) => shown(from + i)),
      ),
    );
});
afterAll(async () => {
  await product.close();
});

async function lines(pieces: AsyncIterable<Uint8Array>): Promise<string[]> {
  const decoder = new TextDecoder();
  let text = '';
  for await (const piece of pieces) text += decoder.decode(piece, { stream: true });
  return text.trimEnd().split('\r\n');
}

describe('an export', () => {
  test('has every entry once, the newest first, across the stretches of both threads', async () => {
    const upTo = await lastSequence(product.deps.db.read);
    const rows = await lines(product.deps.exporter.csv({}, {}, upTo));
    expect(rows.map((row) => Number(row.split(',')[0]))).toEqual(
      Array.from({ length: upTo }, (_, i) => upTo - i),
    );
  });

  test('of a few that lie far apart has just these, with their personal values, formulas disarmed', async () => {
    const rows = await lines(
      product.deps.exporter.csv(
        { with: { reason: ['expired'] } },
        {},
        await lastSequence(product.deps.db.read),
      ),
    );
    expect(rows).toHaveLength(Math.ceil(MANY / 1_000));
    for (const row of rows)
      expect(row).toMatch(
        /,'=person\d*0@yard\.example,tried to read on,page\.shown,refused,expired,/,
      );
    expect(rows.every((row) => row.includes('"Kelder, within about 50 km"'))).toBe(true);
  });

  test('that is given up half way ends its threads, and leaves room for others', async () => {
    for (let i = 0; i < 3; i++) {
      const pieces = await exportLedger(product.deps, product.ida, {});
      await pieces.next();
      await pieces.next();
      await pieces.return(undefined);
    }
    await expect(
      lines(await exportLedger(product.deps, product.ida, { reason: ['expired'] })),
    ).resolves.toHaveLength(2 + Math.ceil(MANY / 1_000));
  });

  test('is refused in words while two others are being made', async () => {
    const both = [
      await exportLedger(product.deps, product.ida, {}),
      await exportLedger(product.deps, product.ida, {}),
    ];
    for (const pieces of both) await pieces.next();
    await expect(exportLedger(product.deps, product.ida, {})).rejects.toMatchObject({
      code: 'TOO_MANY',
    });
    for (const pieces of both) await pieces.return(undefined);
  });

  test('fails where its database cannot be read, and does not look whole', async () => {
    const broken = createLedgerExporter('build/workers', 'file:/nowhere/at/all.db');
    await expect(lines(broken.csv({}, {}, 10))).rejects.toThrow();
  });
});
