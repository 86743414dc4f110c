import { deflateSync } from 'node:zlib';
import { PDFDocument, PDFName, type PDFPage } from '@cantoo/pdf-lib';
import type { Lettering } from '@/server/rendering/making/faces';
import { brokenLines } from '@/server/rendering/making/line-breaking';
import type { Place, SlideItem, Slides, SlideText } from '@/server/rendering/making/slides';
import { smallPicture } from '@/server/rendering/making/small-picture';
import { createTypesetter, type Typesetter } from '@/server/rendering/making/typesetter';

const LEADING = 1.2;
const CELL_SIZE = 12;
const CELL_PADDING = 4;
/** Slides of a shape that no paper has are shown within these, in points. */
const [SMALLEST, LARGEST] = [100, 4_000];

function lettering({ text, bold }: Pick<SlideText, 'text' | 'bold'>): Lettering {
  return { text, face: bold ? 'bold' : 'regular' };
}

function* letteringOf({ slides }: Slides): Generator<Lettering> {
  yield { text: ' .', face: 'regular' };
  for (const item of slides.flat()) {
    if (item.kind === 'text') for (const line of item.lines) yield lettering(line);
    if (item.kind === 'table')
      for (const text of item.rows.flat()) yield lettering({ text, bold: false });
  }
}

function textOrders(
  { left, top, width }: Place,
  lines: readonly SlideText[],
  height: number,
  set: Typesetter,
): string {
  let y = top;
  let drawn = '';
  for (const line of lines) {
    const widthOf = (text: string): number => set.width({ ...lettering(line), text }) * line.size;
    for (const text of line.text.split('\n').flatMap((each) => brokenLines(each, width, widthOf))) {
      y += line.size * LEADING;
      drawn += set.draw({ ...lettering(line), text }, left, height - y, line.size);
    }
  }
  return drawn;
}

/** A table in the width it has, its rows as high as what is in them. */
function tableOrders(
  { left, top, width }: Place,
  rows: readonly string[][],
  height: number,
  set: Typesetter,
): { readonly texts: string; readonly rules: string } {
  const columns = Math.max(1, ...rows.map((row) => row.length));
  const each = width / columns;
  const widthOf = (text: string): number => set.width({ text, face: 'regular' }) * CELL_SIZE;
  let y = top;
  let [texts, rules] = ['', ''];
  for (const row of rows) {
    const cells = row.map((text) =>
      text.split('\n').flatMap((part) => brokenLines(part, each - 2 * CELL_PADDING, widthOf)),
    );
    const lines = Math.max(1, ...cells.map((cell) => cell.length));
    cells.forEach((cell, column) => {
      const x = left + column * each;
      cell.forEach((text, line) => {
        const base = height - y - CELL_SIZE * LEADING * (line + 1);
        texts += set.draw({ text, face: 'regular' }, x + CELL_PADDING, base, CELL_SIZE);
      });
    });
    const high = lines * CELL_SIZE * LEADING + CELL_PADDING * 2;
    for (let column = 0; column < columns; column++)
      rules += box(left + column * each, height - y - high, each, high);
    y += high;
  }
  return { texts, rules };
}

function box(x: number, y: number, width: number, height: number): string {
  return `${[x, y, width, height].map((part) => part.toFixed(2)).join(' ')} re S\n`;
}

async function drawPicture(
  document: PDFDocument,
  page: PDFPage,
  { left, top, width, height }: Place,
  bytes: Uint8Array,
): Promise<void> {
  const picture = await smallPicture(bytes);
  if (picture === null) return;
  const isJpeg = picture.bytes[0] === 0xff;
  const embedded = isJpeg
    ? await document.embedJpg(picture.bytes)
    : await document.embedPng(picture.bytes);
  page.drawImage(embedded, { x: left, y: page.getHeight() - top - height, width, height });
}

async function drawSlide(
  document: PDFDocument,
  set: Typesetter,
  size: readonly [number, number],
  items: readonly SlideItem[],
): Promise<void> {
  const page = document.addPage([...size]);
  const height = page.getHeight();
  let [texts, rules] = ['', ''];
  for (const item of items) {
    if (item.kind === 'picture') await drawPicture(document, page, item.place, item.bytes);
    if (item.kind === 'text') texts += textOrders(item.place, item.lines, height, set);
    if (item.kind === 'table') {
      const table = tableOrders(item.place, item.rows, height, set);
      texts += table.texts;
      rules += table.rules;
    }
  }
  for (const [name, font] of set.fonts) page.node.setFontDictionary(PDFName.of(name), font.ref);
  const orders = `q 0.6 G 0.5 w\n${rules}Q\n0.1 g\nBT\n${texts}ET`;
  const packed = deflateSync(Buffer.from(orders, 'latin1'));
  const stream = document.context.stream(packed, { Filter: 'FlateDecode' });
  page.node.addContentStream(document.context.register(stream));
}

function within(side: number): number {
  return Math.min(LARGEST, Math.max(SMALLEST, side));
}

/** Slides as the pages of a PDF: texts, tables and pictures where they stand. */
export async function slidePages(read: Slides): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const set = await createTypesetter(document, letteringOf(read));
  const size = [within(read.width), within(read.height)] as const;
  for (const items of read.slides.length > 0 ? read.slides : [[]])
    await drawSlide(document, set, size, items);
  return document.save({ useObjectStreams: false });
}
