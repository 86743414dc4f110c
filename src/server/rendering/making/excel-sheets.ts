import ExcelJS, { type Cell, type CellValue, type Worksheet } from 'exceljs';
import { format } from 'numfmt';
import { ContentError } from '@/core/pages/errors';
import { needSmallArchive } from '@/server/rendering/making/archive';
import { MOST_ROWS } from '@/server/rendering/making/csv-sheet';
import type { Sheet, SheetCell } from '@/server/rendering/making/sheet';

/** Columns of one sheet that are laid out, and cells of all of them. */
const MOST_COLUMNS = 1_000;
const MOST_CELLS = 2_000_000;
/** The width of a figure, in which widths are counted, in points. */
const FIGURE = 5.6;
/** Days before 1970, from which moments count, as numbers of days since 1900 count them. */
const DAYS_BEFORE_1970 = 25_569;
const DAY_MS = 86_400_000;

function formatted(pattern: string, value: number): string {
  try {
    return format(pattern, value);
  } catch {
    // Patterns of other programs: the number itself is never withheld.
    return String(value);
  }
}

function shown(value: CellValue, pattern: string): SheetCell {
  if (value === null || value === undefined) return { text: '' };
  if (typeof value === 'number') return { text: formatted(pattern, value), isNumber: true };
  if (typeof value === 'string') return { text: value };
  if (typeof value === 'boolean') return { text: value ? 'TRUE' : 'FALSE' };
  if (value instanceof Date) {
    const days = value.getTime() / DAY_MS + DAYS_BEFORE_1970;
    const own = pattern === 'General' ? 'yyyy-mm-dd' : pattern;
    return { text: formatted(own, days), isNumber: true };
  }
  if ('error' in value) return { text: value.error };
  if ('richText' in value) return { text: value.richText.map(({ text }) => text).join('') };
  if ('hyperlink' in value) return { text: value.text };
  return shown(value.result, pattern);
}

/** @param font what the library leaves out where a file says nothing of it */
function isBold(font: Cell['font'] | undefined): boolean {
  return font?.bold === true;
}

function cellOf(cell: Cell): SheetCell {
  // Of cells that are one, the first holds what is shown.
  if (cell.isMerged && cell.master !== cell) return { text: '' };
  const seen = shown(cell.value, cell.numFmt || 'General');
  return isBold(cell.font) ? { ...seen, bold: true } : seen;
}

/** @param views what the library leaves out where a file has none */
function headingsOf(views: Worksheet['views'] | null): number {
  const view = views?.find(({ state }) => state === 'frozen');
  const frozen = view !== undefined && 'ySplit' in view ? (view.ySplit ?? 0) : 0;
  return Math.min(frozen, 12);
}

/** A sheet without what is hidden in it. */
function sheetOf(sheet: Worksheet): Sheet {
  const columns = Math.min(sheet.columnCount, MOST_COLUMNS);
  const visible = Array.from({ length: columns }, (_, i) => i + 1).filter(
    (column) => !sheet.getColumn(column).hidden,
  );
  const rows: SheetCell[][] = [];
  const numbers: number[] = [];
  sheet.eachRow({ includeEmpty: false }, (row, number) => {
    if (row.hidden) return;
    numbers.push(number);
    rows.push(visible.map((column) => cellOf(row.getCell(column))));
  });
  const frozen = headingsOf(sheet.views);
  return {
    name: sheet.name,
    rows,
    numbers,
    headings: numbers.filter((number) => number <= frozen).length,
    widths: visible.map((column) => {
      const { width } = sheet.getColumn(column);
      return width === undefined ? undefined : width * FIGURE;
    }),
  };
}

/**
 * The sheets of an Excel file with their values as they are shown. Formulas are not reckoned anew,
 * macros are not run, hidden sheets, rows and columns are left out.
 *
 * @throws ContentError `FILE_DAMAGED`, `FILE_UNPACKS_TOO_FAR`, `FILE_TOO_LONG`
 */
export async function excelSheets(bytes: Uint8Array): Promise<Sheet[]> {
  needSmallArchive(bytes);
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(new Uint8Array(bytes).buffer);
  } catch (cause) {
    throw new ContentError('FILE_DAMAGED', { cause });
  }
  const sheets = book.worksheets.filter(({ state }) => state === 'visible');
  const cells = sheets.reduce((n, sheet) => n + sheet.actualRowCount * sheet.actualColumnCount, 0);
  if (cells > MOST_CELLS || sheets.some(({ actualRowCount }) => actualRowCount > MOST_ROWS))
    throw new ContentError('FILE_TOO_LONG');
  return sheets.map(sheetOf);
}
