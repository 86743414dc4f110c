// Reading within an open: parts of a page, words that are found, contents, and what is written down of it.
import { PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, MINUTE } from '@/core/base/time';
import type { DocumentId, LicenceId } from '@/core/base/ids';
import { coverageWords, timesByPage } from '@/core/insight/coverage';
import { newLayer, type MarkLayer } from '@/core/watermark/layers';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { checkPage, findChecked, textChecked } from '@/server/services/documents/check-document';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { previewPage } from '@/server/services/documents/preview-page';
import { seeAs } from '@/server/services/policy/see-as';
import { grantRows } from '@/server/services/access/grant-rows';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { keepDocument } from '@/server/services/reading/take-copies';
import { openDocument } from '@/server/services/reading/open-document';
import {
  findWords,
  noteReading,
  readOutline,
  readText,
  renderPage,
} from '@/server/services/reading/read-pages';
import { viewReading } from '@/server/services/reading/view-reading';
import { joinStaff } from '../support/staff';
import {
  dispatch,
  protect,
  prove,
  startProduct,
  START,
  whole,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
let mira: ReaderActor;
let opened: LicenceId;
let other: StaffActor;

/** Pages of A0 with words on them, and an outline that leads to the second. */
async function paper(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= 4; i++) {
    const page = pdf.addPage([2384, 3370]);
    page.drawText(`Frame ${String(i)} of the hull, framework and Frame again`, {
      x: 200,
      y: 3000,
      size: 60,
      font,
    });
  }
  const target = pdf.context.obj([pdf.getPage(1).ref, PDFName.of('Fit')]);
  const root = pdf.context.nextRef();
  const entry = pdf.context.register(
    pdf.context.obj({ Title: PDFString.of('Second sheet'), Parent: root, Dest: target }),
  );
  pdf.context.assign(root, pdf.context.obj({ First: entry, Last: entry, Count: 1 }));
  pdf.catalog.set(PDFName.of('Outlines'), root);
  return pdf.save({ useObjectStreams: false });
}

async function openAs(address: string): Promise<readonly [ReaderActor, LicenceId]> {
  const token = sent.tokenOf(address);
  const reader = await prove(product, token, address);
  const result = await openDocument(product.deps, reader, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  return [reader, result.licence];
}

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await paper(), 'Frames');
  sent = await dispatch(product, [document], ['mira@x.example', 'per@x.example']);
  [mira, opened] = await openAs('mira@x.example');
  other = await joinStaff(product, 'sender');
});
afterAll(async () => {
  await product.close();
});

const entriesOf = async (action: string) =>
  (await listEntries(product.deps.db.read, {}, 200)).filter(({ entry }) => entry.action === action);

describe('a large page', () => {
  test('is looked at in parts, each marked, up to the widest, and no further', async () => {
    const part = await renderPage(product.deps, mira, {
      licence: opened,
      page: 1,
      width: 8_000,
      column: 2,
      row: 3,
    });
    if ('outcome' in part) throw new Error('refused');
    expect([part.width, part.height]).toEqual([1_024, 1_024]);
    expect(part.points).toEqual({ width: 2384, height: 3370 });
    const { data } = await sharp(part.bytes)
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    // Nothing is drawn there: what is not white is the watermark.
    expect(data.filter((value) => value < 240).length).toBeGreaterThan(3_000);
    await expect(
      renderPage(product.deps, mira, { licence: opened, page: 1, width: 8_000, column: 9, row: 0 }),
    ).rejects.toMatchObject({ code: 'NO_SUCH_PAGE' });
  });

  test('whole is drawn no wider than that, whatever is asked for', async () => {
    const page = await renderPage(product.deps, mira, { licence: opened, page: 1, width: 20_000 });
    if ('outcome' in page) throw new Error('refused');
    expect(page.width).toBeLessThanOrEqual(2_600);
  });
});

describe('words', () => {
  test('are found whole, as boxes and no text, and that is written down', async () => {
    const result = await findWords(product.deps, mira, {
      licence: opened,
      words: 'frame',
      from: 1,
    });
    if ('outcome' in result) throw new Error('refused');
    expect(result.found.map(({ page, places }) => [page, places.length])).toEqual([
      [1, 2],
      [2, 2],
      [3, 2],
      [4, 2],
    ]);
    const box = result.found[0]?.places[0]?.[0];
    expect(Object.keys(box ?? {}).sort()).toEqual(['height', 'left', 'top', 'width']);
    expect(box?.top).toBeGreaterThan(500);
    expect(box?.top).toBeLessThan(1_500);
    expect(JSON.stringify(result)).not.toMatch(/hull/i);
    const [entry] = await entriesOf('text.searched');
    expect(entry?.entry.details).toEqual({ from: 1, to: 4, found: 8 });
    expect(entry?.personal).toMatchObject({ text: 'frame' });
  });

  test.each([
    ['a part of a word', 'fram'],
    ['what is not there', 'anchor'],
    ['signs that mean something elsewhere', '.*'],
  ])('%s is not found', async (_what, words) => {
    const result = await findWords(product.deps, mira, { licence: opened, words, from: 1 });
    expect(result).toMatchObject({ found: [], next: null });
  });

  test('are looked for so often and no more', async () => {
    const asked = { licence: opened, words: 'anchor', from: 4 };
    await expect(
      (async () => {
        for (let i = 0; i < 400; i++) await findWords(product.deps, mira, asked);
      })(),
    ).rejects.toMatchObject({ code: 'TOO_MANY' });
  });
});

describe('without the right to copy', () => {
  test('neither text nor outline reaches anybody', async () => {
    for (const ask of [
      readText(product.deps, mira, { licence: opened, page: 1 }),
      readOutline(product.deps, mira, { licence: opened }),
    ])
      expect(await ask).toMatchObject({ outcome: 'refused', reason: 'not-given' });
  });

  test('with it, the outline leads to its pages', async () => {
    const copying = await dispatch(product, [document], ['lena@x.example'], {
      rights: ['read', 'copy'],
    });
    const token = copying.tokenOf('lena@x.example');
    const lena = await prove(product, token, 'lena@x.example');
    const result = await openDocument(product.deps, lena, { token, document });
    if (result.outcome !== 'granted') throw new Error(result.reason);
    expect(await readOutline(product.deps, lena, { licence: result.licence })).toEqual({
      outline: [{ title: 'Second sheet', page: 2, depth: 0 }],
    });
  });
});

describe('the record of reading', () => {
  test('says which pages were in view for how long, of those that were sent, within the open', async () => {
    const [per, licence] = await openAs('per@x.example');
    for (const page of [1, 2]) await renderPage(product.deps, per, { licence, page, width: 800 });
    product.clock.set(product.clock.now() + MINUTE);
    await noteReading(product.deps, per, {
      licence,
      pages: [
        { page: 1, shown: 30_000 },
        { page: 2, shown: 3_600_000 },
        { page: 3, shown: 9_000 },
      ],
    });
    const record = await viewReading(product.deps, product.ida, {
      document,
      recipient: per.recipient ?? 'rcp_none',
    });
    const [open] = record.opens;
    expect(open?.shown).toEqual([
      { page: 1, shownFor: 30_000 },
      { page: 2, shownFor: MINUTE },
    ]);
    expect(coverageWords(timesByPage([open?.shown ?? []]), open?.pages ?? 0)).toBe(
      'read pages 1 to 2',
    );
    // A list says the same in short: to who reads this record, and of who opened it.
    const readOf = async (viewer: StaffActor, address: string) =>
      (await grantRows(product.deps, viewer, { document })).find((row) => row.address === address)
        ?.read;
    expect(await readOf(product.ida, 'per@x.example')).toEqual({
      read: 2,
      from: 1,
      to: 2,
      pages: 4,
    });
    expect(await readOf(product.ida, 'mira@x.example')).toMatchObject({ read: 0, pages: 4 });
    expect(await readOf(other, 'per@x.example')).toBeNull();
    await expect(
      noteReading(product.deps, mira, { licence, pages: [{ page: 1, shown: 1 }] }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('is taken so often and no more', async () => {
    const told = { licence: opened, pages: [{ page: 1, shown: 1 }] };
    await expect(
      (async () => {
        for (let i = 0; i < 500; i++) await noteReading(product.deps, mira, told);
      })(),
    ).rejects.toMatchObject({ code: 'TOO_MANY' });
  });

  test('is told only to those who may read it', async () => {
    const recipient = mira.recipient ?? 'rcp_none';
    expect(
      (await viewReading(product.deps, product.ida, { document, recipient })).opens,
    ).toHaveLength(1);
    expect((await viewReading(product.deps, other, { document, recipient })).opens).toEqual([]);
  });
});

test('what is for paper only stands on a kept copy, and a strip beside the page makes none', async () => {
  const keeping = async (address: string, layer: MarkLayer) => {
    const { id } = await dispatchDocuments(product.deps, product.ida, {
      documents: [document],
      recipients: [{ address, name: '', organisation: '' }],
      terms: {
        rights: ['read', 'copy', 'print', 'keep'],
        from: null,
        until: START + 30 * DAY,
        prints: null,
      },
      subject: 'To keep',
      note: '',
      watermark: [layer],
      delivery: 'by-hand',
    });
    const [grant] = await grantRows(product.deps, product.ida, { dispatch: id });
    const token = grant?.link.split('/').at(-1) ?? '';
    const keeper = await prove(product, token, address);
    const result = await openDocument(product.deps, keeper, { token, document });
    if (result.outcome !== 'granted') throw new Error(result.reason);
    const made = await keepDocument(product.deps, keeper, { licence: result.licence });
    if (made.outcome !== 'made') throw new Error(made.reason);
    await whole(made);
    const [kept] = await entriesOf('document.kept');
    return kept?.entry.details;
  };
  const paper = { ...newLayer('footer', 'Kept by {address}'), on: 'paper' as const };
  expect(await keeping('kept.one@x.example', paper)).toEqual({ marked: true });
  const strip = newLayer('banner', 'Copy {copy}, uncontrolled');
  expect(await keeping('kept.two@x.example', strip)).toEqual({ marked: false });
});

describe('seen as a recipient', () => {
  const asked = () => ({ document, recipient: mira.recipient ?? ('rcp_none' as const) });

  test('it is decided as for them, at any time and place, and counted for nobody', async () => {
    const before = (await entriesOf('document.opened')).length;
    const now = await seeAs(product.deps, product.ida, asked());
    expect(now.explained).toMatchObject({ opens: true });
    expect(now.person.address).toBe('mira@x.example');
    expect(now.document.pages).toBe(4);
    expect(now.watermark[0]?.line).toContain('{address}');
    const later = await seeAs(product.deps, product.ida, { ...asked(), at: START + 60 * DAY });
    expect(later.explained).toMatchObject({ opens: false, reason: 'expired' });
    expect(later.watermark).toEqual([]);
    const page = await previewPage(product.deps, product.ida, {
      id: document,
      ...now.person,
      watermark: now.watermark,
      medium: 'screen',
      ground: 'light',
      page: 2,
      width: 4_000,
      column: 0,
      row: 0,
    });
    expect(page.width).toBe(1_024);
    expect(await entriesOf('document.opened')).toHaveLength(before);
    expect((await entriesOf('document.checked')).length).toBeGreaterThan(0);
  });

  test('by nobody who does not answer for the document', async () => {
    const watermark = [newLayer('tiled', '{address}')];
    for (const ask of [
      () =>
        previewPage(product.deps, other, {
          id: document,
          address: 'mira@x.example',
          name: '',
          organisation: '',
          watermark,
          medium: 'screen',
          ground: 'light',
          page: 1,
          width: 400,
        }),
      () => checkPage(product.deps, other, { id: document, page: 1, width: 400 }),
      () => findChecked(product.deps, other, { id: document, words: 'frame', from: 1 }),
      () => textChecked(product.deps, other, { id: document, page: 1 }),
    ])
      await expect(ask()).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });
});

test('once the key is destroyed nothing that was drawn before is shown to anybody', async () => {
  const page = { licence: opened, page: 1, width: 900 };
  expect(await renderPage(product.deps, mira, page)).toMatchObject({ type: 'image/png' });
  await destroyKey(product.deps, product.ida, {
    id: document,
    typed: (
      await seeAs(product.deps, product.ida, {
        document,
        recipient: mira.recipient ?? 'rcp_none',
      })
    ).document.reference,
    reason: 'over',
  });
  expect(await renderPage(product.deps, mira, page)).toMatchObject({
    outcome: 'refused',
    reason: 'key-destroyed',
  });
});
