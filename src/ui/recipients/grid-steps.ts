import {
  isRightColumn,
  setOpens,
  setPrints,
  setRight,
  takeColumn,
  type Column,
} from '@/core/compose/columns';
import {
  changeRows,
  changeTerms,
  termsOfRow,
  type Row,
  type Sheet,
  type Target,
} from '@/core/compose/sheet';
import { rightNames } from '@/core/policy/right-names';
import { RIGHTS, type Dependency, type Terms } from '@/core/policy/rights';
import { isChangeable, type GridColumn, type GridRow } from '@/ui/recipients/grid-view';
import { needsWords } from '@/ui/words/dependency-words';

/** A change of the sheet, and what else it did, in words. */
export type Step = {
  readonly step: (sheet: Sheet, common: Terms) => Sheet;
  readonly said: string | null;
};

function fellWords(fell: readonly Dependency[]): string | null {
  if (fell.length === 0) return null;
  return fell
    .map(({ right, needs }) => `${rightNames[right]} ${needsWords[needs]}, so it is off.`)
    .join(' ');
}

function termsStep(target: Target, change: (terms: Terms) => Terms): Step['step'] {
  return (sheet, common) => changeTerms(sheet, common, target, change);
}

/** Switches a right in the rows as in the active one; `null`: there is nothing to switch there. */
export function toggleStep(column: GridColumn, active: Terms, target: Target): Step | null {
  if (!isChangeable(column) || !isRightColumn(column)) return null;
  if (column === 'read')
    return {
      step: (sheet) => sheet,
      said: 'Every right needs Read. To give somebody nothing, remove them.',
    };
  const on = !active.rights.includes(column);
  return {
    step: termsStep(target, (terms) => setRight(terms, column, on).terms),
    said: fellWords(setRight(active, column, on).fell),
  };
}

/** Sets a count; 0: no limit. `null`: the column has no count. */
export function countStep(
  column: GridColumn,
  n: number,
  active: Terms,
  target: Target,
): Step | null {
  const most = n === 0 ? null : n;
  if (column === 'opens')
    return { step: termsStep(target, (terms) => setOpens(terms, most)), said: null };
  if (column !== 'print') return null;
  return {
    step: termsStep(target, (terms) => setPrints(terms, most).terms),
    said: fellWords(setPrints(active, most).fell),
  };
}

/** Gives rows the common value of a column again. */
export function clearStep(column: GridColumn, target: Target): Step | null {
  if (!isChangeable(column) || target === 'common') return null;
  return { step: (sheet, common) => filled(sheet, { column, common, target }, null), said: null };
}

/** What was copied of a row: one column of it, or by its name all it is given. */
export type Copied = {
  readonly column: GridColumn;
  readonly terms: Terms;
  readonly without: Row['without'];
};

const ALL_COLUMNS: readonly Column[] = [...RIGHTS, 'ends', 'opens', 'conditions', 'documents'];

/** Puts what was copied into rows; `null`: it came from another column. */
export function pasteStep(copied: Copied, column: GridColumn, target: Target): Step | null {
  if (copied.column !== column || column === 'organisation') return null;
  const columns = isChangeable(column) ? [column] : ALL_COLUMNS;
  const takesDocuments = target !== 'common' && columns.includes('documents');
  return {
    step: (sheet, common) => {
      const given = changeTerms(sheet, common, target, (terms) =>
        columns.reduce((taken, each) => takeColumn(taken, each, copied.terms), terms),
      );
      return takesDocuments
        ? changeRows(given, target, (row) => ({ ...row, without: copied.without }))
        : given;
    },
    said: null,
  };
}

/** Fills what stands in a column down into rows. */
export function fillStep(
  column: GridColumn,
  rows: readonly GridRow[],
  active: string | null,
  selected: ReadonlySet<string>,
): Step | null {
  if (!isChangeable(column)) return null;
  const { source, into } = filling(rows, active, selected);
  return into.size === 0
    ? null
    : {
        step: (sheet, common) => filled(sheet, { column, common, target: into }, source),
        said: null,
      };
}

/**
 * What is filled down from where: from the common terms into every row, from the first selected row
 * into the others, or from the row above into the one that is active.
 */
function filling(
  rows: readonly GridRow[],
  active: string | null,
  selected: ReadonlySet<string>,
): { readonly source: Row | null; readonly into: ReadonlySet<string> } {
  if (active === null) return { source: null, into: new Set(rows.map(({ row }) => row.key)) };
  const picked = rows.filter(({ row }) => selected.has(row.key));
  if (selected.has(active) && picked.length > 1) {
    const [first, ...others] = picked.map(({ row }) => row);
    return { source: first ?? null, into: new Set(others.map(({ key }) => key)) };
  }
  const at = rows.findIndex(({ row }) => row.key === active);
  return { source: rows[at - 1]?.row ?? null, into: new Set([active]) };
}

type Filling = {
  readonly column: Column;
  readonly common: Terms;
  readonly target: ReadonlySet<string>;
};

function filled(sheet: Sheet, { column, common, target }: Filling, source: Row | null): Sheet {
  if (column === 'documents')
    return changeRows(sheet, target, (row) => ({ ...row, without: source?.without ?? [] }));
  // The step is made on the sheet as it is by then, so the row is looked up in it.
  const row = source === null ? undefined : sheet.rows.find(({ key }) => key === source.key);
  const from = row === undefined ? common : termsOfRow(row, common);
  return changeTerms(sheet, common, target, (terms) => takeColumn(terms, column, from));
}
