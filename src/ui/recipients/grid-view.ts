import type { DocumentRow } from '@/contracts/document';
import { differsIn, isRightColumn, type Column } from '@/core/compose/columns';
import type { Row } from '@/core/compose/sheet';
import type { Right, Terms } from '@/core/policy/rights';
import type { Known } from '@/ui/recipients/use-facts';

/** A column of the grid: who, where they are, or what can be changed. */
export type GridColumn = 'who' | 'organisation' | Column;

export type GridFilter = 'all' | 'different' | 'to-look-at' | 'new';
export type GridOrder = { readonly by: GridColumn; readonly down: boolean } | null;

export type GridRow = {
  readonly row: Row;
  readonly terms: Terms;
  readonly known: Known | undefined;
};

/** A document that rows are given or not. */
export type GridDocument = Pick<DocumentRow, 'id' | 'title' | 'reference'>;

/** The name a row goes by: what was typed, else what is known. */
export function nameOf({ row, known }: Pick<GridRow, 'row' | 'known'>): string {
  return row.name === '' ? (known?.name ?? '') : row.name;
}

export function organisationOf({ row, known }: Pick<GridRow, 'row' | 'known'>): string {
  return row.organisation === '' ? (known?.organisation ?? '') : row.organisation;
}

function holds(each: GridRow, text: string): boolean {
  if (text === '') return true;
  return [nameOf(each), organisationOf(each), each.row.key].some((value) =>
    value.toLowerCase().includes(text),
  );
}

type Wanted = {
  readonly text: string;
  readonly filter: GridFilter;
  readonly order: GridOrder;
  readonly common: Terms;
  readonly columns: readonly GridColumn[];
  readonly isToLookAt: (key: string) => boolean;
};

/** Whether a row has anything of its own. */
export function isDifferent(
  { row, terms }: GridRow,
  common: Terms,
  columns: readonly GridColumn[],
): boolean {
  return columns.some((column) => isChangeable(column) && differsIn(column, row, terms, common));
}

export function isChangeable(column: GridColumn): column is Column {
  return column !== 'who' && column !== 'organisation';
}

function passes(each: GridRow, { filter, common, columns, isToLookAt }: Wanted): boolean {
  switch (filter) {
    case 'all':
      return true;
    case 'different':
      return isDifferent(each, common, columns);
    case 'to-look-at':
      return isToLookAt(each.row.key);
    case 'new':
      return each.known?.known === false;
  }
}

/** What rows are put in order by, in a column that is not a right's: what is not set comes last. */
const RANKS: Readonly<Record<Exclude<GridColumn, Right>, (each: GridRow) => string | number>> = {
  who: (each) => nameOf(each) || each.row.key,
  organisation: organisationOf,
  ends: ({ terms }) => terms.until ?? Number.MAX_SAFE_INTEGER,
  opens: ({ terms }) => terms.conditions?.opens ?? Number.MAX_SAFE_INTEGER,
  conditions: ({ terms }) => -Object.keys(terms.conditions ?? {}).length,
  documents: ({ row }) => -row.without.length,
};

function rank(each: GridRow, by: GridColumn): string | number {
  if (!isChangeable(by) || !isRightColumn(by)) return RANKS[by](each);
  return each.terms.rights.includes(by) ? 0 : 1;
}

function compare(a: string | number, b: string | number): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), 'en', { numeric: true, sensitivity: 'base' });
}

/** The rows that are shown, in their order. */
export function shownRows(rows: readonly GridRow[], wanted: Wanted): readonly GridRow[] {
  const text = wanted.text.trim().toLowerCase();
  const found = rows.filter((each) => holds(each, text) && passes(each, wanted));
  const { order } = wanted;
  if (order === null) return found;
  const ranked = found.map((each) => ({ each, rank: rank(each, order.by) }));
  ranked.sort((a, b) => (order.down ? -1 : 1) * compare(a.rank, b.rank));
  return ranked.map(({ each }) => each);
}
