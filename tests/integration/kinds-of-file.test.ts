// Files of every kind: what is shown of them, what is kept, and that nothing of them lies about in the clear.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ExcelJS from 'exceljs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { RIGHTS } from '@/core/policy/rights';
import { BusyError } from '@/server/limits/fair-queue';
import { renderPage, readText } from '@/server/services/reading/read-pages';
import { keepDocument, printDocument } from '@/server/services/reading/take-copies';
import { openDocument } from '@/server/services/reading/open-document';
import { makeComment } from '@/server/services/comments/recipient-comments';
import { documentComments } from '@/server/services/comments/staff-comments';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { lookAtUpload } from '@/server/services/documents/look-at-upload';
import { cancelUpload, protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { checkContents } from '@/server/services/documents/check-contents';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { viewDocument } from '@/server/services/documents/view-document';
import { berthFiles } from '../../demo/berth-files';
import { wordFile, wordParagraph } from '../../demo/word-file';
import { dispatch, inPieces, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

const text = (content: string): Uint8Array => new TextEncoder().encode(content);
const blobs = () =>
  ['incoming', 'blobs'].flatMap((folder) => readdirSync(path.join(product.folder, folder)));

let people = 0;

/** Protected, sent with every right to somebody new, and opened. */
async function opened(fileName: string, bytes: Uint8Array) {
  const document = await protect(product, bytes, fileName.replace(/\..*$/, ''), fileName);
  const address = `reader${String(++people)}@x.example`;
  const sent = await dispatch(product, [document], [address], { rights: [...RIGHTS] });
  const token = sent.tokenOf(address);
  const actor = await prove(product, token, address);
  const result = await openDocument(product.deps, actor, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  const { licence, pages } = result;
  const page = async (number = 1) =>
    renderPage(product.deps, actor, { licence, page: number, width: 600 });
  const keep = async () => {
    const made = await keepDocument(product.deps, actor, { licence });
    if (made.outcome !== 'made') throw new Error(made.reason);
    const pieces: Uint8Array[] = [];
    for await (const piece of made.pieces) pieces.push(piece.slice());
    return { ...made, content: Buffer.concat(pieces) };
  };
  return { document, actor, licence, pages, page, keep };
}

async function sheet(): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Weights').addRows([
    ['Item', 'Weight'],
    ['Mast', 3.1],
  ]);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const FILES: readonly [name: string, make: () => Promise<Uint8Array>, words: RegExp][] = [
  ['Notes.txt', () => Promise.resolve(text('Frame 12 was moved')), /Frame 12 was moved/],
  ['Notes.md', () => Promise.resolve(text('# Frames\n\n12 was **moved**')), /Frames.*12 was moved/],
  ['Weights.csv', () => Promise.resolve(text('Item,t\nMast,3.1\n')), /Mast/],
  ['Specification.docx', () => wordFile([wordParagraph('Mast as drawn')]), /Mast as drawn/],
  ['Weights.xlsx', sheet, /Mast/],
];

describe('the files of the demo', () => {
  test.each(berthFiles)('$fileName is taken in', async ({ title, fileName, make }) => {
    const document = await protect(product, await make(), title, fileName);
    const { pages } = await viewDocument(product.deps, product.ida, { id: document });
    expect(pages > 0).toBe(!fileName.endsWith('model'));
  });
});

describe.each(FILES)('%s', (name, make, words) => {
  test('is read as marked pages, and kept as it came', async () => {
    const bytes = await make();
    const { document, actor, licence, pages, page, keep } = await opened(name, bytes);
    expect(pages).toBe(1);
    const shown = await page();
    if ('outcome' in shown) throw new Error(shown.reason);
    const { channels } = await sharp(shown.bytes).stats();
    // Neither white nor black all over: there are letters, and the mark.
    expect(channels[0]?.stdev).toBeGreaterThan(3);
    const { runs } = (await readText(product.deps, actor, { licence, page: 1 })) as {
      readonly runs: readonly { readonly text: string }[];
    };
    expect(runs.map((run) => run.text.trim()).join(' ')).toMatch(words);
    const kept = await keep();
    expect(kept.content.equals(Buffer.from(bytes))).toBe(true);
    expect(kept.marked).toBe(false);
    expect(kept.name).toMatch(new RegExp(`\\${path.extname(name)}$`));
    const { versions } = await viewDocument(product.deps, product.ida, { id: document });
    expect(versions[0]).toMatchObject({ fileName: name, pages: 1, bytes: bytes.length });
  });
});

test('a picture is kept in its own format, with the mark in it', async () => {
  const plain = await sharp({
    create: { width: 900, height: 600, channels: 3, background: '#fff' },
  })
    .png()
    .toBuffer();
  const { keep, page } = await opened('Quay.png', plain);
  expect(await page()).toHaveProperty('bytes');
  const { content, mediaType, name, marked } = await keep();
  expect(marked).toBe(true);
  expect([mediaType, path.extname(name)]).toEqual(['image/png', '.png']);
  const { format, width, height } = await sharp(content).metadata();
  expect([format, width, height]).toEqual(['png', 900, 600]);
  expect((await sharp(content).stats()).channels[0]?.stdev).toBeGreaterThan(1);
});

/** How many pixels of a picture are not white. */
async function inked(picture: Buffer, page = 0): Promise<number> {
  const { data } = await sharp(picture, { page })
    .flatten({ background: 'white' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return data.filter((value) => value < 250).length;
}

test('each picture of a TIFF that has several is kept with the mark', async () => {
  const pages = Buffer.alloc(300 * 400 * 3 * 3, 255);
  const raw = { width: 300, height: 1200, channels: 3 as const, pageHeight: 400 };
  const tiff = await sharp(pages, { raw }).tiff().toBuffer();
  const { keep, pages: shown } = await opened('Scan.tiff', tiff);
  expect(shown).toBe(3);
  const { content, marked } = await keep();
  expect(marked).toBe(true);
  expect(await sharp(content).metadata()).toMatchObject({ format: 'tiff', pages: 3 });
  for (const page of [0, 1, 2]) expect(await inked(content, page)).toBeGreaterThan(500);
});

test('a drawing is kept with the mark over it, and without what runs in it', async () => {
  const drawing =
    '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300">' +
    '<script>alert(1)</script><rect width="100%" height="100%" fill="#fff"/></svg>';
  const { keep } = await opened('Plan.svg', text(drawing));
  const { content, marked, mediaType } = await keep();
  expect([marked, mediaType]).toEqual([true, 'image/svg+xml']);
  expect(content.toString()).not.toContain('<script');
  expect(await sharp(content).metadata()).toMatchObject({ format: 'svg', width: 400, height: 300 });
  expect(await inked(content)).toBeGreaterThan(500);
});

test('a picture that is too large to be marked is kept as it came', async () => {
  const size = { width: 8_000, height: 6_000 };
  const large = await sharp({ create: { ...size, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  const { content, marked } = await (await opened('Large.png', large)).keep();
  expect(marked).toBe(false);
  expect(content.equals(large)).toBe(true);
});

test('what has no pages is protected, opened and kept, and nothing of it is drawn or printed', async () => {
  const model = Uint8Array.from({ length: 5_000 }, (_, i) => (i * 31) % 251);
  const { pages, page, keep, actor, licence } = await opened('Hull.dwg', model);
  expect(pages).toBe(0);
  await expect(page()).rejects.toMatchObject({ code: 'NO_SUCH_PAGE' });
  await expect(
    printDocument(product.deps, actor, { licence, from: 1, to: 1 }),
  ).rejects.toMatchObject({ code: 'INVALID' });
  const kept = await keep();
  expect(kept.content.equals(Buffer.from(model))).toBe(true);
  expect(kept.name).toMatch(/Hull\.dwg$/);
});

test('comments on pages that were made are read by the owner, and the check of all contents passes', async () => {
  const { document, actor, licence } = await opened('Remarks.txt', text('Please comment'));
  await makeComment(product.deps, actor, {
    licence,
    page: 1,
    place: { kind: 'point', left: 100, top: 100 },
    text: 'Is this the last word?',
    answers: null,
  });
  const { comments } = await documentComments(product.deps, product.ida, { id: document });
  expect(comments.map((each) => each.text)).toContain('Is this the last word?');
  const { damaged } = await checkContents(product.deps, null, () => undefined);
  expect(damaged).toEqual([]);
});

test('neither the file nor its pages lie in the clear, and both are of no use without their key', async () => {
  const { document, page } = await opened('Secret.txt', text('a sentence nobody else may read'));
  const stored = blobs().map((name) => {
    const folder = name.includes('incoming') ? 'incoming' : 'blobs';
    return readFileSync(path.join(product.folder, folder, name));
  });
  for (const file of stored) {
    expect(file.includes('nobody else may read')).toBe(false);
    expect(file.includes('%PDF')).toBe(false);
    expect(file.subarray(0, 22).toString()).toBe('age-encryption.org/v1\n');
  }
  const { reference } = await viewDocument(product.deps, product.ida, { id: document });
  await destroyKey(product.deps, product.ida, { id: document, typed: reference });
  expect(await page()).toMatchObject({ outcome: 'refused' });
});

describe('an upload of a kind that pages are made of', () => {
  const upload = async (fileName: string, bytes: Uint8Array) => {
    const { id } = await beginUpload(product.deps, product.ida, { fileName, bytes: bytes.length });
    await receivePart(product.deps, product.ida, { id, offset: 0 }, inPieces(bytes));
    return id;
  };

  test('that is given up leaves neither the file nor its pages', async () => {
    const before = blobs().sort();
    const id = await upload('Draft.txt', text('Marked for bidders'));
    expect(await lookAtUpload(product.deps, product.ida, { id })).toMatchObject({ pages: 1 });
    expect(blobs()).toHaveLength(before.length + 2);
    await cancelUpload(product.deps, product.ida, { id });
    expect(blobs().sort()).toEqual(before);
  });

  test('has its pages made once, however often it is looked at and protected at once', async () => {
    const id = await upload('Once.txt', text('Looked at by many'));
    const look = () => lookAtUpload(product.deps, product.ida, { id });
    const about = { id, title: 'Once', reference: 'REF-ONCE', again: true };
    const all = await Promise.allSettled([
      look(),
      look(),
      protectDocument(product.deps, product.ida, about),
      look(),
    ]);
    expect(all.map(({ status }) => status)).toEqual([
      'fulfilled',
      'fulfilled',
      'fulfilled',
      // It is a document by then.
      'rejected',
    ]);
    const { damaged } = await checkContents(product.deps, null, () => undefined);
    expect(damaged).toEqual([]);
  });

  test('is kept where the server had no time for it', async () => {
    const id = await upload('Busy.txt', text('Come again'));
    const busy = {
      ...product.deps,
      renderer: { ...product.deps.renderer, run: () => Promise.reject(new BusyError()) },
    };
    await expect(lookAtUpload(busy, product.ida, { id })).rejects.toMatchObject({ code: 'BUSY' });
    expect(await lookAtUpload(product.deps, product.ida, { id })).toMatchObject({ pages: 1 });
  });

  test.each([
    ['damaged', 'Specification.docx', text('PK\u0003\u0004 and no more'), 'FILE_DAMAGED'],
    ['locked or old', 'Old.docx', Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0]), 'FILE_LOCKED'],
    ['another kind', 'Plan.xlsx', text('%PDF-1.7'), 'NOT_OF_ITS_NAME'],
  ])('that is %s is refused in words, and leaves nothing', async (_what, name, bytes, code) => {
    const before = blobs().sort();
    await expect(
      upload(name, bytes).then((id) => lookAtUpload(product.deps, product.ida, { id })),
    ).rejects.toMatchObject({ code });
    expect(blobs().sort()).toEqual(before);
  });
});
