import {
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  StandardFonts,
  type PDFRef,
} from '@cantoo/pdf-lib';
import { beforeAll, describe, expect, test } from 'vitest';
import type { PlainReader } from '@/core/age/random-access';
import { onePage } from '@/core/pages/one-page';
import { openPdf } from '@/core/pages/pdf-document';
import type { Pdfium } from '@/core/pages/pdfium';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { realDocument, withBrokenTable } from '../../../tests/support/real-documents';

let pdfium: Pdfium;
beforeAll(async () => {
  pdfium = await loadInstalledPdfium();
});

type Counted = PlainReader & { readonly reads: () => number };
function readerOf(bytes: Uint8Array): Counted {
  let reads = 0;
  return {
    size: bytes.length,
    opened: () => 0,
    reads: () => reads,
    read: (offset, length) => {
      reads++;
      return bytes.subarray(offset, Math.min(bytes.length, offset + length));
    },
  };
}

/**
 * 90 numbered pages in a tree of `fan` kids a node; the size stands only at the top of it, the turn
 * only on a branch.
 */
async function numbered(
  fan: number,
  change: (document: PDFDocument, nodes: readonly PDFRef[]) => void = () => undefined,
): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let page = 1; page <= 90; page++)
    document.addPage([300, 200]).drawText(String(page), { x: 60, y: 60, size: 90, font });
  await document.flush();
  const { context } = document;
  let level = document.getPages().map((page) => {
    page.node.delete(PDFName.of('MediaBox'));
    return { ref: page.ref, count: 1 };
  });
  const nodes: PDFRef[] = [];
  while (level.length > 1) {
    const above: typeof level = [];
    for (let at = 0; at < level.length; at += fan) {
      const kids = level.slice(at, at + fan);
      const count = kids.reduce((sum, kid) => sum + kid.count, 0);
      const node = context.obj({ Type: 'Pages', Kids: kids.map(({ ref }) => ref), Count: count });
      const ref = context.register(node);
      nodes.push(ref);
      if (above.length === 1) node.set(PDFName.of('Rotate'), PDFNumber.of(90));
      for (const kid of kids) context.lookup(kid.ref, PDFDict).set(PDFName.of('Parent'), ref);
      above.push({ ref, count });
    }
    level = above;
  }
  const top = level[0]?.ref;
  if (top === undefined) throw new Error('no tree');
  context.lookup(top, PDFDict).set(PDFName.of('MediaBox'), context.obj([0, 0, 300, 200]));
  document.catalog.set(PDFName.of('Pages'), top);
  change(document, nodes);
  return document.save({
    useObjectStreams: false,
    addDefaultPage: false,
    updateFieldAppearances: false,
  });
}

/** A page as PDFium draws it when it has walked there. */
function walkedTo(bytes: Uint8Array, page: number): string {
  const pdf = openPdf(pdfium, readerOf(bytes));
  for (let at = 1; at < page; at += 10) pdf.draw(at, 100);
  const picture = pdf.draw(page, 240);
  pdf.close();
  return Buffer.from(picture.rgba).toString('base64');
}

function directly(bytes: Uint8Array, page: number): string {
  const pdf = openPdf(pdfium, readerOf(bytes));
  const picture = pdf.draw(page, 240);
  pdf.close();
  return Buffer.from(picture.rgba).toString('base64');
}

describe.each([4, 10, 90])('a tree of %i kids a node', (fan) => {
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await numbered(fan);
  });

  test.each([26, 41, 60, 90])(
    'page %i is the same found here as walked to, with what it inherits',
    (page) => {
      expect(onePage(readerOf(bytes), page - 1)).not.toBeNull();
      expect(directly(bytes, page)).toBe(walkedTo(bytes, page));
    },
  );

  test('it takes a few reads, and no more further on', () => {
    const reads = [30, 60, 90].map((page) => {
      const reader = readerOf(bytes);
      onePage(reader, page - 1);
      return reader.reads();
    });
    expect(Math.max(...reads)).toBeLessThan(60);
  });

  test('a page that is not there is not found', () => {
    for (const index of [90, 1000]) expect(onePage(readerOf(bytes), index)).toBeNull();
  });
});

test('counts that lie lead to what PDFium finds, or to nothing', async () => {
  const lying = await numbered(10, (document, nodes) => {
    for (const ref of nodes.slice(0, 3))
      document.context.lookup(ref, PDFDict).set(PDFName.of('Count'), PDFNumber.of(0));
  });
  expect(onePage(readerOf(lying), 50)).toBeNull();
  expect(directly(lying, 50)).toBe(walkedTo(lying, 50));
});

test('a file without a plain table is left to PDFium: compressed objects, a broken table, cut, none', async () => {
  const document = await PDFDocument.create();
  for (let i = 0; i < 60; i++) document.addPage([100, 100]);
  const packed = await document.save();
  const bytes = await numbered(10);
  for (const other of [
    packed,
    withBrokenTable(realDocument('usage')),
    bytes.subarray(0, bytes.length - 40),
    Buffer.concat([bytes, Buffer.from('more')]),
    Buffer.from('%PDF-'),
    Buffer.alloc(0),
  ])
    expect(onePage(readerOf(other), 40)).toBeNull();
  expect(directly(packed, 55)).toBe(walkedTo(packed, 55));
});

test('a long document that nobody here made is drawn alike both ways', () => {
  const manual = realDocument('gnuplot');
  for (const page of [150, 311]) expect(directly(manual, page)).toBe(walkedTo(manual, page));
});

test('a table that points at itself ends', () => {
  const loop = Buffer.from(
    '%PDF-1.4\nxref\n0 1\n0000000000 65535 f \ntrailer\n<< /Size 1 /Root 1 0 R /Prev 9 >>\nstartxref\n9\n%%EOF\n',
  );
  expect(onePage(readerOf(loop), 0)).toBeNull();
});
