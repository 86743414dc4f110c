// The ledger narrowed: counts, rows and export say the same, whatever the filters.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { getTableColumns, sql } from 'drizzle-orm';
import type { LedgerInput } from '@/contracts/ledger';
import { OUTCOMES } from '@/core/ledger/entry';
import { DAY } from '@/core/base/time';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { ledgerDays } from '@/server/db/schema/ledger';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findValues } from '@/server/services/ledger/find-values';
import { viewOpens } from '@/server/services/ledger/count-opens';
import { renderPage } from '@/server/services/reading/read-pages';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import {
  exportLedger,
  listFacet,
  listLedger,
  listOpen,
} from '@/server/services/ledger/list-entries';
import { recountDays } from '@/server/services/ledger/recount-days';
import { openDocument } from '@/server/services/reading/open-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { grantRows } from '@/server/services/access/grant-rows';
import { record } from '@/server/services/base/record';
import type { StaffActor } from '@/server/services/base/deps';
import { insertStaff } from '@/server/repositories/staff/staff-repository';
import { setFiled } from '@/server/repositories/documents/document-repository';
import { START, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
let mira = '';
let petra = '';
let device = '';
let version = '';
let document: DocumentId;

/** Two organisations, three days, opens and refusals from an invented place. */
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida, clock } = product;
  document = await protect(product, await drawing(1));
  version = (await findDocument(deps.db.read, document))?.version.id ?? '';
  const { id } = await dispatchDocuments(deps, ida, {
    documents: [document],
    recipients: [
      { address: 'mira@b.example', name: 'Mira', organisation: 'Brackwater' },
      { address: 'petra@k.example', name: 'Petra', organisation: 'Kelder' },
    ],
    terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null },
    subject: 'x',
    note: '',
    watermark: [],
    delivery: 'mail' as const,
  });
  const rows = await grantRows(deps, ida, { dispatch: id });
  for (const [i, row] of rows.entries()) {
    clock.set(START + (i + 1) * DAY);
    const token = row.link.split('/').at(-1) ?? '';
    const reader = await prove(product, token, row.address);
    const opened = await openDocument(deps, reader, { token, document });
    if (opened.outcome === 'granted')
      await renderPage(deps, reader, { licence: opened.licence, page: 1, width: 300 });
    if (row.name === 'Mira') {
      mira = row.recipientId;
      device = reader.device;
    } else {
      petra = row.recipientId;
      await revokeGrants(deps, ida, { grants: [row.id] });
      await openDocument(deps, reader, { token, document });
    }
  }
});
afterAll(async () => {
  await product.close();
});

const page = (input: LedgerInput) => listLedger(product.deps, product.ida, input);
async function exported(input: LedgerInput): Promise<string[]> {
  let text = '';
  for await (const piece of await exportLedger(product.deps, product.ida, input))
    text += new TextDecoder().decode(piece);
  return text.trimEnd().split('\r\n').slice(2);
}

describe('filters', () => {
  test.each<[string, () => LedgerInput]>([
    ['none', () => ({})],
    ['a kind', () => ({ kind: ['opened'] })],
    ['refusals', () => ({ kind: ['refused'] })],
    ['a reason', () => ({ reason: ['revoked'] })],
    ['an outcome', () => ({ outcome: ['granted'] })],
    ['an outcome of one kind', () => ({ kind: ['proof'], outcome: ['done'] })],
    ['a person', () => ({ recipient: [mira] })],
    ['an organisation', () => ({ organisation: ['Kelder'] })],
    ['a place', () => ({ place: ['Port Brackwater'] })],
    ['days', () => ({ from: '2026-11-26', to: '2026-11-26' })],
    [
      'several together',
      () => ({ organisation: ['Kelder'], kind: ['opened'], from: '2026-11-26' }),
    ],
    ['one of two kinds', () => ({ kind: ['opened', 'refused'] })],
    ['all but one kind', () => ({ without: [{ dimension: 'kind', value: 'staff' }] })],
    [
      'all but one organisation and one place',
      () => ({
        without: [
          { dimension: 'organisation', value: 'Kelder' },
          { dimension: 'place', value: 'Port Brackwater' },
        ],
      }),
    ],
    ['all but one person', () => ({ without: [{ dimension: 'recipient', value: mira }] })],
    [
      'two people, but for what was refused',
      () => ({ recipient: [mira, petra], without: [{ dimension: 'outcome', value: 'refused' }] }),
    ],
    ['all but one document', () => ({ without: [{ dimension: 'document', value: document }] })],
    ['who did it', () => ({ actor: [product.ida.id] })],
    [
      'all that somebody else did',
      () => ({ without: [{ dimension: 'actor', value: product.ida.id }] }),
    ],
    ['a device', () => ({ device: [device] })],
    ['a version', () => ({ version: [version], kind: ['opened'] })],
    ['hours of a day', () => ({ from: '2026-11-26T00:30', to: '2026-11-26T23:00' })],
    ['a time to a day', () => ({ from: '2026-11-25T12:00', to: '2026-11-26' })],
    ['one person, from a time on', () => ({ recipient: [mira], from: '2026-11-25T09:00' })],
    ['a device, from a time on', () => ({ device: [device], from: '2026-11-25T09:00' })],
    ['what is ours', () => ({ own: 'yes' })],
    [
      'what is ours but for a kind',
      () => ({ own: 'yes', without: [{ dimension: 'kind', value: 'proof' }] }),
    ],
    ['what nothing passes', () => ({ organisation: ['Nowhere'] })],
  ])('by %s give as many rows as they count, and export the same', async (_name, inputOf) => {
    const { rows, total } = await page({ ...inputOf(), each: 'yes' });
    expect(rows).toHaveLength(total);
    // An export of everything holds its own entry as well.
    const lines = await exported(inputOf());
    expect(lines.length - total).toBeOneOf([0, 1]);
  });

  test('leave out what does not pass', async () => {
    expect((await page({ kind: ['refused'] })).rows.map((row) => [row.who, row.reason])).toEqual([
      ['Petra', 'revoked'],
    ]);
    expect(
      (await page({ organisation: ['Brackwater'], kind: ['opened'] })).rows.map((row) => row.who),
    ).toEqual(['Mira']);
    expect(
      new Set(
        (await page({ place: ['Port Brackwater'] })).rows.map((row) => row.place.split(',')[0]),
      ),
    ).toEqual(new Set(['Port Brackwater']));
  });

  test('by outcome hold that outcome alone, and all outcomes together are everything', async () => {
    const totals: number[] = [];
    for (const outcome of OUTCOMES) {
      const { rows, total } = await page({ outcome: [outcome], each: 'yes' });
      expect(rows.filter((row) => row.outcome !== outcome)).toEqual([]);
      totals.push(total);
    }
    expect(totals.reduce((sum, total) => sum + total, 0)).toBe((await page({})).total);
    expect(totals[OUTCOMES.indexOf('granted')]).toBeGreaterThan(1);
  });

  test('narrow each tally but their own', async () => {
    const { facets, days } = await page({ kind: ['refused'] });
    expect(facets.kinds.length).toBeGreaterThan(3);
    expect(facets.organisations).toEqual({ values: [{ value: 'Kelder', entries: 1 }], all: 1 });
    expect(days).toEqual([{ day: '2026-11-27', granted: 0, refused: 1 }]);
    const within = await page({ from: '2026-11-25', to: '2026-11-25' });
    expect(within.days.map(({ day }) => day)).toEqual(['2026-11-25', '2026-11-26', '2026-11-27']);
    expect(within.facets.reasons).toEqual({ values: [], all: 0 });
  });

  test('know days as the organisation does: half past eleven at night is the next day in Oslo', async () => {
    product.clock.set(Date.UTC(2026, 10, 29, 23, 30));
    await exported({ kind: ['refused'] });
    expect(
      (await page({ from: '2026-11-30', to: '2026-11-30' })).rows.map((row) => row.action),
    ).toEqual(['ledger.exported']);
    expect((await page({ from: '2026-11-29', to: '2026-11-29' })).total).toBe(0);
  });
});

describe('pages and keys', () => {
  test('are told with their open, which folds out, and stand by themselves when looked for', async () => {
    const folded = await page({ recipient: [mira] });
    const [open] = folded.rows.filter(({ action }) => action === 'document.opened');
    expect([
      folded.folded,
      open?.within,
      folded.rows.some(({ action }) => action === 'page.shown' || action === 'key.unwrapped'),
    ]).toEqual([true, 2, false]);
    const { rows } = await listOpen(product.deps, product.ida, {
      licence: open?.licence ?? 'lic_',
    });
    expect(rows.map(({ action }) => action).sort()).toEqual(['key.unwrapped', 'page.shown']);
    expect(
      (await page({ recipient: [mira], kind: ['read'] })).rows.map(({ action }) => action),
    ).toEqual(['page.shown']);
  });

  test('are not lost where their open lies outside of the span', async () => {
    const [shown] = (await page({ recipient: [mira], kind: ['read'] })).rows;
    await product.deps.db.write((tx) =>
      record(product.deps, tx, {
        action: 'page.shown',
        outcome: 'granted',
        actor: { kind: 'recipient', id: mira },
        occurredAt: START + 2.5 * DAY,
        licence: shown?.licence ?? 'lic_',
        recipient: mira as RecipientId,
        document,
        details: { page: 2 },
      }),
    );
    const from = new Date(START + 2.4 * DAY).toISOString().slice(0, 16);
    expect((await page({ recipient: [mira], from })).rows.map(({ action }) => action)).toContain(
      'page.shown',
    );
  });
});

describe('a sender', () => {
  const sender = (): StaffActor => ({
    ...product.ida,
    id: 'stf_sender00000000000000',
    role: 'sender',
  });
  beforeAll(async () => {
    await product.deps.db.write((tx) =>
      insertStaff(
        tx,
        { id: sender().id, name: 'Nils Fenn', email: 'nils@tern.example', role: 'sender' },
        START,
      ),
    );
  });

  test('reads of nothing that is others’, by no way', async () => {
    expect(await page({})).toMatchObject({ everything: true });
    const theirs = await listLedger(product.deps, sender(), { each: 'yes' });
    expect([theirs.rows.length, theirs.total, theirs.everything]).toEqual([0, 0, false]);
    expect(
      (await listLedger(product.deps, sender(), { document: [document], each: 'yes' })).rows,
    ).toEqual([]);
    expect((await listFacet(product.deps, sender(), { facet: 'organisation' })).values).toEqual([]);
    const [open] = (await page({ recipient: [mira] })).rows.filter(
      ({ action }) => action === 'document.opened',
    );
    expect(
      (await listOpen(product.deps, sender(), { licence: open?.licence ?? 'lic_' })).rows,
    ).toEqual([]);
    expect((await viewOpens(product.deps, sender(), {})).people).toBe(0);
    expect((await findValues(product.deps, sender(), { text: 'Port' })).values).toEqual([]);
    let text = '';
    for await (const piece of await exportLedger(product.deps, sender(), {}))
      text += new TextDecoder().decode(piece);
    expect(
      text
        .trimEnd()
        .split('\r\n')
        .slice(2)
        .filter((line) => !line.includes('ledger.exported')),
    ).toEqual([]);
  });

  test('reads what is about their document, no matter who did it', async () => {
    await product.deps.db.write((tx) => setFiled(tx, [document], { deputyId: sender().id }));
    const theirs = await listLedger(product.deps, sender(), { each: 'yes' });
    const all = await page({ document: [document], each: 'yes' });
    const own = theirs.rows.filter(({ actor }) => actor.id !== sender().id);
    expect(own.map(({ sequence }) => sequence)).toEqual(all.rows.map(({ sequence }) => sequence));
    expect((await viewOpens(product.deps, sender(), {})).people).toBe(2);
  });
});

test('whatever the ledger is narrowed to is found by a part of its name', async () => {
  const found = async (text: string) =>
    (await findValues(product.deps, product.ida, { text })).values.map(
      ({ dimension, value }) => `${dimension} ${value}`,
    );
  expect(await found('mira')).toEqual(
    expect.arrayContaining([`recipient ${mira}`, `actor ${mira}`, `device ${device}`]),
  );
  expect(await found('ida')).toContain(`actor ${product.ida.id}`);
  expect(await found('brackwater')).toEqual(
    expect.arrayContaining(['organisation Brackwater', 'place Port Brackwater']),
  );
  expect(await found('revok')).toContain('reason revoked');
  expect((await found('Lines')).map((each) => each.split(' ')[0])).toEqual(
    expect.arrayContaining(['document', 'version']),
  );
});

test('counts that were lost are made again from the entries', async () => {
  const { db } = product.deps;
  // Which entry a tally was last touched by may differ: counting anew touches all of them.
  const { last: _last, ...columns } = getTableColumns(ledgerDays);
  const counted = () =>
    db.read
      .select(columns)
      .from(ledgerDays)
      .orderBy(
        ledgerDays.day,
        ledgerDays.kind,
        ledgerDays.outcome,
        ledgerDays.reason,
        ledgerDays.place,
        ledgerDays.organisation,
      );
  const before = await counted();
  await db.write((tx) => tx.delete(ledgerDays).where(sql`day = '2026-11-26'`));
  await recountDays(product.deps);
  expect(await counted()).toEqual(before);
});
