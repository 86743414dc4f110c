'use client';

import { memo, type MouseEvent } from 'react';
import { bareDomain } from '@/core/policy/address';
import { differsIn, isRightColumn, otherConditions } from '@/core/compose/columns';
import type { Terms } from '@/core/policy/rights';
import { CellContent } from '@/ui/recipients/grid-cell';
import { columnName } from '@/ui/recipients/grid-columns';
import { isChangeable, nameOf, type GridColumn, type GridRow } from '@/ui/recipients/grid-view';
import { COMMON, type Grid } from '@/ui/recipients/use-grid';

/** Height of a row in CSS pixels. */
export const ROW = 42;

export type RowHandlers = Pick<Grid, 'point' | 'toggle' | 'edit'>;

type Props = {
  readonly each: GridRow;
  readonly common: Terms;
  readonly columns: readonly GridColumn[];
  /** The active cell, where it is in this row. */
  readonly active: GridColumn | null;
  readonly selected: boolean;
  /** What has to be looked at about this row. */
  readonly concern: 'stops' | 'asks' | null;
  readonly documents: number;
  readonly index: number;
  readonly handlers: RowHandlers;
};

/** What a row is called where it is read out. */
function rowName(each: GridRow): string {
  const { key, kind } = each.row;
  if (key === COMMON) return 'Common terms';
  if (kind === 'domain') return `Everyone at ${bareDomain(key)}`;
  return kind === 'link' ? 'Anyone with the link' : nameOf(each) || key;
}

/** The id of a cell, by which the grid says which one is active. */
export function cellId(key: string, column: GridColumn): string {
  return `cell ${key} ${column}`.replaceAll(' ', '-');
}

function pressOn(event: MouseEvent, key: string, column: GridColumn, handlers: RowHandlers): void {
  const place = { key, column };
  if (event.shiftKey) handlers.point(place, 'up-to-here');
  else if (event.ctrlKey || event.metaKey) handlers.point(place, 'as-well');
  else {
    handlers.point(place, 'alone');
    if (isChangeable(column) && isRightColumn(column)) handlers.toggle(place);
    else if (column !== 'organisation') handlers.edit(place);
  }
}

/** What a cell is called where it is read out: what stands in it is a mark or a number. */
function labelOf(
  column: GridColumn,
  { row, terms }: GridRow,
  documents: number,
): string | undefined {
  if (!isChangeable(column)) return undefined;
  const name = columnName(column);
  if (isRightColumn(column)) {
    if (!terms.rights.includes(column)) return `${name}: no`;
    return column === 'print' && terms.prints !== null
      ? `${name}: ${String(terms.prints)}`
      : `${name}: yes`;
  }
  if (column === 'opens') return `${name}: ${String(terms.conditions?.opens ?? 'no limit')}`;
  if (column === 'conditions')
    return `${name}: ${String(Object.keys(otherConditions(terms)).length || 'none')}`;
  if (column === 'documents')
    return `${name}: ${String(documents - row.without.length)} of ${String(documents)}`;
  return undefined;
}

/** A row of the grid; drawn anew only where something of it changed. */
export const GridRowView = memo(function GridRowView({
  each,
  common,
  columns,
  active,
  selected,
  concern,
  documents,
  index,
  handlers,
}: Props) {
  const { key } = each.row;
  return (
    // Plain elements: hundreds of cells are drawn at an edit, and the library's are styled one by one.
    <tr
      role="row"
      className={`grid-row ${concern ?? ''} ${key === COMMON ? 'common' : ''}`}
      aria-selected={selected}
      aria-rowindex={index}
      aria-label={rowName(each)}
      style={{ height: ROW }}
    >
      {columns.map((column) => {
        const differs =
          key !== COMMON && isChangeable(column) && differsIn(column, each.row, each.terms, common);
        return (
          <td
            key={column}
            id={cellId(key, column)}
            role={column === 'who' ? 'rowheader' : 'gridcell'}
            className={`${column === active ? 'active' : ''} ${differs ? 'differs' : ''} ${
              isChangeable(column) && isRightColumn(column) ? 'right' : column
            }`}
            aria-label={labelOf(column, each, documents)}
            onClick={(event) => {
              pressOn(event, key, column, handlers);
            }}
          >
            <CellContent column={column} each={each} documents={documents} />
          </td>
        );
      })}
    </tr>
  );
});
