// The ledger narrowed: counts, rows and export say the same, whatever the filters.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { getTableColumns, sql } from 'drizzle-orm';
import type { LedgerInput } from '@/contracts/ledger';
import { OUTCOMES } from '@/core/ledger/entry';
import { DAY } from '@/core/base/time';
import { ledgerDays } from '@/server/db/schema';
import { dispatchDocuments } from '@/server/services/dispatch-documents';
import { exportLedger, listLedger } from '@/server/services/list-entries';
import { recountDays } from '@/server/services/recount-days';
import { openDocument } from '@/server/services/open-document';
import { revokeGrants } from '@/server/services/change-access';
import { grantRows } from '@/server/services/grant-rows';
import { START, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
let mira = '';

/** Two organisations, three days, opens and refusals from an invented place. */
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida, clock } = product;
  const document = await protect(product, await drawing(1));
  const { id } = await dispatchDocuments(deps, ida, { documents: [document], recipients: [{ address: 'mira@b.example', name: 'Mira', organisation: 'Brackwater' }, { address: 'petra@k.example', name: 'Petra', organisation: 'Kelder' }], terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null }, subject: 'x', note: '', watermark: '', delivery: 'mail' as const });
  const rows = await grantRows(deps, ida, { dispatch: id });
  for (const [i, row] of rows.entries()) {
    clock.set(START + (i + 1) * DAY);
    const token = row.link.split('/').at(-1) ?? '';
    const reader = await prove(product, token, row.address);
    await openDocument(deps, reader, { token, document });
    if (row.name === 'Mira') mira = row.recipientId;
    else {
      await revokeGrants(deps, ida, { grants: [row.id] });
      await openDocument(deps, reader, { token, document });
    }
  }
});
afterAll(async () => { await product.close(); });

const page = (input: LedgerInput) => listLedger(product.deps, product.ida, input);
async function exported(input: LedgerInput): Promise<string[]> {
  let text = '';
  for await (const piece of await exportLedger(product.deps, product.ida, input)) text += new TextDecoder().decode(piece);
  return text.trimEnd().split('\r\n').slice(2);
}

describe('filters', () => {
  test.each<[string, () => LedgerInput]>([
    ['none', () => ({})],
    ['a kind', () => ({ kind: 'opened' })],
    ['refusals', () => ({ kind: 'refused' })],
    ['a reason', () => ({ reason: 'revoked' })],
    ['an outcome', () => ({ outcome: 'granted' })],
    ['an outcome of one kind', () => ({ kind: 'proof', outcome: 'done' })],
    ['a person', () => ({ recipient: mira })],
    ['an organisation', () => ({ organisation: 'Kelder' })],
    ['a place', () => ({ place: 'Port Brackwater' })],
    ['days', () => ({ from: '2026-11-26', to: '2026-11-26' })],
    ['several together', () => ({ organisation: 'Kelder', kind: 'opened', from: '2026-11-26' })],
    ['what nothing passes', () => ({ organisation: 'Nowhere' })],
  ])('by %s give as many rows as they count, and export the same', async (_name, inputOf) => {
    const { rows, total } = await page(inputOf());
    expect(rows).toHaveLength(total);
    // An export of everything holds its own entry as well.
    const lines = await exported(inputOf());
    expect(lines.length - total).toBeOneOf([0, 1]);
  });

  test('leave out what does not pass', async () => {
    expect((await page({ kind: 'refused' })).rows.map((row) => [row.who, row.reason])).toEqual([['Petra', 'revoked']]);
    expect((await page({ organisation: 'Brackwater', kind: 'opened' })).rows.map((row) => row.who)).toEqual(['Mira']);
    expect(new Set((await page({ place: 'Port Brackwater' })).rows.map((row) => row.place.split(',')[0]))).toEqual(new Set(['Port Brackwater']));
  });

  test('by outcome hold that outcome alone, and all outcomes together are everything', async () => {
    const totals: number[] = [];
    for (const outcome of OUTCOMES) {
      const { rows, total } = await page({ outcome });
      expect(rows.filter((row) => row.outcome !== outcome)).toEqual([]);
      totals.push(total);
    }
    expect(totals.reduce((sum, total) => sum + total, 0)).toBe((await page({})).total);
    expect(totals[OUTCOMES.indexOf('granted')]).toBeGreaterThan(1);
  });

  test('narrow each heap but their own', async () => {
    const { facets, days } = await page({ kind: 'refused' });
    expect(facets.kinds.length).toBeGreaterThan(3);
    expect(facets.organisations).toEqual([{ value: 'Kelder', entries: 1 }]);
    expect(days).toEqual([{ day: '2026-11-27', granted: 0, refused: 1 }]);
    const within = await page({ from: '2026-11-25', to: '2026-11-25' });
    expect(within.days.map(({ day }) => day)).toEqual(['2026-11-25', '2026-11-26', '2026-11-27']);
    expect(within.facets.reasons).toEqual([]);
  });

  test('know days as the organisation does: half past eleven at night is the next day in Oslo', async () => {
    product.clock.set(Date.UTC(2026, 10, 29, 23, 30));
    await exported({ kind: 'refused' });
    expect((await page({ from: '2026-11-30', to: '2026-11-30' })).rows.map((row) => row.action)).toEqual(['ledger.exported']);
    expect((await page({ from: '2026-11-29', to: '2026-11-29' })).total).toBe(0);
  });
});

test('counts that were lost are made again from the entries', async () => {
  const { db } = product.deps;
  // Which entry a heap was last touched by may differ: counting anew touches all of them.
  const { last: _last, ...columns } = getTableColumns(ledgerDays);
  const counted = () => db.read.select(columns).from(ledgerDays).orderBy(ledgerDays.day, ledgerDays.kind, ledgerDays.outcome, ledgerDays.reason, ledgerDays.place, ledgerDays.organisation);
  const before = await counted();
  await db.write((tx) => tx.delete(ledgerDays).where(sql`day = '2026-11-26'`));
  await recountDays(product.deps);
  expect(await counted()).toEqual(before);
});
