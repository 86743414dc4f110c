'use client';

import type { KeyboardEvent } from 'react';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import type { Header, ReactTable } from '@tanstack/react-table';
import type { Column } from '@/ui/tables/column';
import type { ListFeatures } from '@/ui/tables/use-list-table';

/** Pixels that an arrow key makes a column wider or narrower by. */
const STEP = 16;

type Props<R extends object> = {
  readonly table: ReactTable<ListFeatures, R>;
  readonly columns: readonly Column<R>[];
};

/** The head of a list: what the columns hold, by which it is ordered, and their widths to pull at. */
export function ListHeader<R extends object>({ table, columns }: Props<R>) {
  const headers = table.getHeaderGroups()[0]?.headers ?? [];
  return (
    <TableHead>
      <TableRow>
        {columns.map((column, i) => {
          const header = headers[i];
          return header === undefined ? null : (
            <HeaderCell key={column.id} table={table} column={column} header={header} />
          );
        })}
      </TableRow>
    </TableHead>
  );
}

function HeaderCell<R extends object>({
  table,
  column,
  header,
}: {
  readonly table: ReactTable<ListFeatures, R>;
  readonly column: Column<R>;
  readonly header: Header<ListFeatures, R>;
}) {
  const sorted = header.column.getIsSorted();
  const ordered = { asc: 'ascending', desc: 'descending' } as const;
  return (
    <TableCell
      aria-label={column.header === '' ? undefined : column.header}
      aria-sort={sorted === false ? undefined : ordered[sorted]}
      className={column.kind === 'number' ? 'number' : undefined}
    >
      <HeaderWords column={column} header={header} sorted={sorted} />
      <WidthHandle table={table} header={header} name={column.header} />
    </TableCell>
  );
}

function HeaderWords<R extends object>({
  column,
  header,
  sorted,
}: {
  readonly column: Column<R>;
  readonly header: Header<ListFeatures, R>;
  readonly sorted: 'asc' | 'desc' | false;
}) {
  const words = column.head ?? column.header;
  if (!header.column.getCanSort()) return words;
  return (
    <TableSortLabel
      active={sorted !== false}
      direction={sorted === false ? 'asc' : sorted}
      onClick={header.column.getToggleSortingHandler()}
      IconComponent={OrderMark}
    >
      {words}
    </TableSortLabel>
  );
}

/** A small triangle that points the way the list is ordered. */
function OrderMark({ className }: { readonly className?: string }) {
  return (
    <svg className={className} viewBox="0 0 8 8" width="8" height="8" aria-hidden="true">
      <path d="M4 1.5 7.4 6.5H.6Z" fill="currentColor" />
    </svg>
  );
}

/** The edge of a column: pulled with the pointer or moved with the arrow keys. */
function WidthHandle<R extends object>({
  table,
  header,
  name,
}: {
  readonly table: ReactTable<ListFeatures, R>;
  readonly header: Header<ListFeatures, R>;
  readonly name: string;
}) {
  const width = header.getSize();
  // Columns share out the room that is left over, so their widths are taken as they stand first.
  const settle = (row: Element | null) => {
    const cells = [...(row?.children ?? [])];
    const ids = table.getAllLeafColumns().map((column) => column.id);
    table.setColumnSizing(
      Object.fromEntries(ids.map((id, i) => [id, cells[i]?.getBoundingClientRect().width ?? 80])),
    );
  };
  const move = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    settle(event.currentTarget.closest('tr'));
    table.setColumnSizing((widths) => ({
      ...widths,
      [header.column.id]: Math.max(STEP, (widths[header.column.id] ?? width) + by),
    }));
  };
  return (
    <span
      role="separator"
      aria-orientation="vertical"
      aria-label={`Width of ${name === '' ? 'the column' : name}`}
      aria-valuenow={Math.round(width)}
      tabIndex={0}
      className="width-handle"
      onKeyDown={move}
      onPointerDown={(event) => {
        settle(event.currentTarget.closest('tr'));
      }}
      onMouseDown={header.getResizeHandler()}
      onTouchStart={header.getResizeHandler()}
      onDoubleClick={() => {
        table.resetColumnSizing(true);
      }}
    />
  );
}
