'use client';

import { useMemo, useRef, type ReactNode } from 'react';
import Table from '@mui/material/Table';
import type { Column, Order } from '@/ui/tables/column';
import { ListHeader } from '@/ui/tables/list-header';
import { AllRows, VirtualRows } from '@/ui/tables/list-rows';
import { useListTable } from '@/ui/tables/use-list-table';

type Props<R extends object> = {
  /** What this list is called where its widths are kept. */
  readonly id: string;
  readonly label: string;
  readonly columns: readonly Column<R>[];
  readonly rows: readonly R[];
  readonly keyOf: (row: R) => string;
  readonly isSelected?: (row: R) => boolean;
  /** Rows that fold out below one; not together with `fills`. */
  readonly below?: (row: R) => ReactNode;
  /** Where the server orders the list. */
  readonly order?: Order;
  /**
   * The list fills what is left of the surface, scrolls by itself and draws only what can be seen:
   * every row has this height in pixels.
   */
  readonly fills?: number;
  /** Rows there are in all, where they come in parts, and what fetches the next. */
  readonly total?: number;
  readonly onMore?: () => void;
};

/** How far a list is squeezed before it scrolls sideways. */
const NARROWEST = 0.85;

/** A list whose columns order it and keep the widths they are given. */
export function DataTable<R extends object>(props: Props<R>) {
  const { id, label, columns, rows, keyOf, isSelected, below, order, fills, onMore } = props;
  const frame = useRef<HTMLDivElement>(null);
  const table = useListTable(id, rows, columns, keyOf, order);
  const model = table.getRowModel().rows;
  const shown = useMemo(() => model.map(({ original }) => original), [model]);
  const total = props.total ?? rows.length;
  const width = table.getTotalSize();
  // Until somebody sets them, the columns share the room there is, also where it is less.
  const isSettled = Object.keys(table.state.columnSizing).length > 0;
  const widthOf = (size: number) => (isSettled ? size : `${((size / width) * 100).toFixed(3)}%`);
  const whole = (
    <Table
      stickyHeader
      className="list"
      aria-label={label}
      aria-rowcount={total + 1}
      style={{ minWidth: isSettled ? width : width * NARROWEST }}
    >
      <colgroup>
        {table.getAllLeafColumns().map((column) => (
          <col key={column.id} style={{ width: widthOf(column.getSize()) }} />
        ))}
      </colgroup>
      <ListHeader table={table} columns={columns} />
      {fills === undefined ? (
        <AllRows
          rows={shown}
          columns={columns}
          keyOf={keyOf}
          isSelected={isSelected}
          below={below}
        />
      ) : (
        <VirtualRows
          rows={shown}
          columns={columns}
          keyOf={keyOf}
          isSelected={isSelected}
          frame={frame}
          total={total}
          height={fills}
          onMore={onMore}
        />
      )}
    </Table>
  );
  if (fills === undefined) return whole;
  return (
    <div ref={frame} className="scroll" tabIndex={-1}>
      {whole}
    </div>
  );
}
