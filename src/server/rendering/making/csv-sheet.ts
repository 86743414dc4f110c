import Papa from 'papaparse';
import { ContentError } from '@/core/pages/errors';
import type { Sheet } from '@/server/rendering/making/sheet';

/** Rows of one table that are laid out. */
export const MOST_ROWS = 100_000;
const NUMBER = /^-?\d[\d., ]*%?$/;

/**
 * A table of values apart from one another by commas or what else its first lines are apart by
 * (RFC 4180). Its first row heads every page.
 *
 * @throws ContentError `FILE_TOO_LONG`
 */
export function csvSheet(text: string): Sheet {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MOST_ROWS + 1 });
  if (data.length > MOST_ROWS) throw new ContentError('FILE_TOO_LONG');
  return {
    name: '',
    headings: Math.min(1, data.length),
    numbers: data.map((_row, i) => i + 1),
    widths: [],
    rows: data.map((row, y) =>
      row.map((value) => ({
        text: value,
        ...(y > 0 && NUMBER.test(value.trim()) ? { isNumber: true as const } : {}),
        ...(y === 0 ? { bold: true as const } : {}),
      })),
    ),
  };
}
