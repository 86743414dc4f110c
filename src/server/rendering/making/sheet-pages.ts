import { deflateSync } from 'node:zlib';
import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { addOutline } from '@/server/rendering/making/add-outline';
import type { Lettering } from '@/server/rendering/making/faces';
import { brokenLines } from '@/server/rendering/making/line-breaking';
import type { Sheet, SheetCell } from '@/server/rendering/making/sheet';
import { createTypesetter, type Typesetter } from '@/server/rendering/making/typesetter';
import { ContentError } from '@/core/pages/errors';

// A sheet keeps its columns beside one another, however wide: a page is as wide as they are, its
// heading rows stand on each page again, and one looks at it as wide as the window or comes closer.

/** Measures in points. */
const SIZE = 8.5;
const LINE = 10.5;
const PADDING = 4;
const MARGIN = 24;
const TITLE = 18;
const SIDE = 34;
const NARROWEST = 26;
const WIDEST_COLUMN = 260;
/** A page is at least A4 across, and at most what a PDF may be (ISO 32000-2, annex C). */
const NARROW_PAGE = 842;
const WIDEST_PAGE = 14_000;
const SHORTEST_PAGE = 595;
const LONGEST_PAGE = 1_300;
/** Rows whose words are measured for how wide a column is, and lines of one cell that are shown. */
const MEASURED = 400;
const MOST_LINES = 40;
const MOST_PAGES = 20_000;

type Column = { readonly index: number; readonly width: number };
type Row = {
  readonly number: number;
  readonly lines: readonly (readonly string[])[];
  readonly height: number;
  readonly cells: readonly SheetCell[];
};

function lettering({ text, bold }: SheetCell): Lettering {
  return { text, face: bold === true ? 'bold' : 'regular' };
}

function* letteringOf(sheets: readonly Sheet[]): Generator<Lettering> {
  for (const face of ['regular', 'bold'] as const) yield { text: '0123456789/·… ', face };
  for (const { name, rows } of sheets) {
    yield { text: name, face: 'bold' };
    for (const row of rows) for (const cell of row) yield lettering(cell);
  }
}

function columnsOf(sheet: Sheet, set: Typesetter): Column[] {
  const count = sheet.rows.reduce((most, row) => Math.max(most, row.length), 1);
  return Array.from({ length: count }, (_, index) => {
    const own = sheet.widths[index];
    // A number that does not fit is never cut: it would be read as another one.
    const needed = sheet.rows.reduce((most, row, y) => {
      const cell = row[index];
      const isMeasured = cell?.isNumber === true || (own === undefined && y < MEASURED);
      if (cell === undefined || !isMeasured) return most;
      const longest = cell.text.split('\n').reduce((m, line) => Math.max(m, line.length), 0);
      return longest === 0 ? most : Math.max(most, set.width(lettering(cell)) * SIZE);
    }, 0);
    const wanted = Math.max(own ?? 0, needed + 2 * PADDING + 1);
    return { index, width: Math.min(Math.max(wanted, NARROWEST), WIDEST_COLUMN) };
  });
}

/** Columns that go on one page beside one another. */
function bandsOf(columns: readonly Column[]): Column[][] {
  const bands: Column[][] = [[]];
  let width = 0;
  for (const column of columns) {
    if (width + column.width > WIDEST_PAGE - 2 * MARGIN - SIDE) {
      bands.push([]);
      width = 0;
    }
    bands.at(-1)?.push(column);
    width += column.width;
  }
  return bands;
}

/** A cell's text in lines that are no wider than it is. */
function linesOf(cell: SheetCell, width: number, set: Typesetter): string[] {
  const widthOf = (text: string): number => set.width({ ...lettering(cell), text }) * SIZE;
  const lines: string[] = [];
  for (const given of cell.text.split(/\r\n?|\n/)) {
    if (lines.length > MOST_LINES) break;
    lines.push(...brokenLines(given, width, widthOf, MOST_LINES));
  }
  return lines.length > MOST_LINES ? [...lines.slice(0, MOST_LINES - 1), '…'] : lines;
}

function rowOf(sheet: Sheet, at: number, band: readonly Column[], set: Typesetter): Row {
  const cells = band.map(({ index }) => sheet.rows[at]?.[index] ?? { text: '' });
  const lines = cells.map((cell, i) =>
    cell.text === '' ? [] : linesOf(cell, (band[i]?.width ?? 0) - 2 * PADDING, set),
  );
  const most = lines.reduce((max, each) => Math.max(max, each.length), 1);
  return { number: sheet.numbers[at] ?? at + 1, cells, lines, height: most * LINE + PADDING };
}

type Sized = { readonly width: number; readonly height: number };

function pageOf(band: readonly Column[]): Sized {
  const across = band.reduce((sum, { width }) => sum + width, 0) + 2 * MARGIN + SIDE;
  const width = Math.max(NARROW_PAGE, Math.ceil(across));
  return { width, height: Math.min(Math.max(SHORTEST_PAGE, width * 0.6), LONGEST_PAGE) };
}

/** Rows that go on each page: the headings, and what follows as far as it fits. */
function pagesOf(rows: readonly Row[], headings: number, { height }: Sized): Row[][] {
  const heads = rows.slice(0, headings);
  const room = height - 2 * MARGIN - TITLE - heads.reduce((sum, row) => sum + row.height, 0);
  const pages: Row[][] = [];
  let left = 0;
  for (const row of rows.slice(headings)) {
    if (pages.length === 0 || row.height > left) {
      pages.push([...heads]);
      left = room;
    }
    pages.at(-1)?.push(row);
    left -= row.height;
  }
  return pages.length === 0 ? [[...heads]] : pages;
}

type Shown = {
  readonly rows: readonly Row[];
  readonly band: readonly Column[];
  readonly headings: number;
  readonly title: string;
  readonly size: Sized;
};

/** The orders that draw one page. */
function drawn({ rows, band, headings, title, size: { height } }: Shown, set: Typesetter): string {
  const texts: string[] = [];
  const rules: string[] = [];
  const left = MARGIN + SIDE;
  const right = left + band.reduce((sum, { width }) => sum + width, 0);
  texts.push(set.draw({ text: title, face: 'bold' }, MARGIN, height - MARGIN - SIZE, SIZE));
  let top = height - MARGIN - TITLE;
  rows.forEach((row, y) => {
    if (y < headings)
      rules.push(`0.93 g ${box(left, top - row.height, right - left, row.height)} f`);
    const number = String(row.number);
    texts.push(set.draw({ text: number, face: 'regular' }, MARGIN, top - LINE, SIZE * 0.85));
    let x = left;
    band.forEach(({ width }, i) => {
      const cell = row.cells[i];
      row.lines[i]?.forEach((text, line) => {
        if (text === '' || cell === undefined) return;
        const shown = { ...lettering(cell), text };
        const inside = cell.isNumber === true ? width - PADDING - set.width(shown) * SIZE : PADDING;
        texts.push(set.draw(shown, x + inside, top - LINE * (line + 1), SIZE));
      });
      x += width;
    });
    top -= row.height;
    rules.push(`0.8 g ${box(left, top, right - left, 0.4)} f`);
  });
  let x = left;
  for (const { width } of [{ width: 0 }, ...band]) {
    x += width;
    rules.push(`0.8 g ${box(x, top, 0.4, height - MARGIN - TITLE - top)} f`);
  }
  return `${rules.join('\n')}\n0.1 g\nBT\n${texts.join('')}ET`;
}

function box(x: number, y: number, width: number, height: number): string {
  return `${[x, y, width, height].map((each) => each.toFixed(2)).join(' ')} re`;
}

/**
 * Sheets as the pages of a PDF, each sheet an entry of its outline.
 *
 * @throws ContentError `FILE_TOO_LONG`
 */
export async function sheetPages(sheets: readonly Sheet[]): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const set = await createTypesetter(document, letteringOf(sheets));
  const outline: { readonly title: string; readonly page: number }[] = [];
  for (const sheet of sheets.length > 0 ? sheets : [EMPTY]) {
    outline.push({ title: sheet.name, page: document.getPageCount() });
    for (const band of bandsOf(columnsOf(sheet, set))) {
      const size = pageOf(band);
      const rows = sheet.rows.map((_row, at) => rowOf(sheet, at, band, set));
      const pages = pagesOf(rows, sheet.headings, size);
      if (document.getPageCount() + pages.length > MOST_PAGES)
        throw new ContentError('FILE_TOO_LONG');
      pages.forEach((shown, i) => {
        const counted = `${String(i + 1)}/${String(pages.length)}`;
        const title = sheet.name === '' ? counted : `${sheet.name} · ${counted}`;
        const orders = drawn({ rows: shown, band, headings: sheet.headings, title, size }, set);
        addPage(document, set, size, orders);
      });
    }
  }
  if (outline.some(({ title }) => title !== '')) addOutline(document, outline);
  return document.save({ useObjectStreams: false });
}

const EMPTY: Sheet = { name: '', rows: [], numbers: [], headings: 0, widths: [] };

function addPage(document: PDFDocument, set: Typesetter, size: Sized, orders: string): void {
  const page = document.addPage([size.width, size.height]);
  for (const [name, font] of set.fonts) page.node.setFontDictionary(PDFName.of(name), font.ref);
  const packed = deflateSync(Buffer.from(orders, 'latin1'));
  const stream = document.context.stream(packed, { Filter: 'FlateDecode' });
  page.node.set(PDFName.of('Contents'), document.context.register(stream));
}
