'use client';

import { Fragment, memo, useEffect, type ReactNode, type RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Column } from '@/ui/tables/column';

/** Rows fetched before those that are there have been seen. */
const AHEAD = 40;

type RowsProps<R> = {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  readonly isSelected: ((row: R) => boolean) | undefined;
};

/** Every row of a list, each with what folds out below it. */
export function AllRows<R>({
  rows,
  columns,
  keyOf,
  isSelected,
  below,
}: RowsProps<R> & { readonly below: ((row: R) => ReactNode) | undefined }) {
  return (
    <TableBody>
      {rows.map((row) => (
        <Fragment key={keyOf(row)}>
          <ListRow row={row} columns={columns} selected={isSelected?.(row)} />
          {below?.(row)}
        </Fragment>
      ))}
    </TableBody>
  );
}

type VirtualProps<R> = RowsProps<R> & {
  readonly frame: RefObject<HTMLDivElement | null>;
  readonly total: number;
  /** Height of a row in CSS pixels; every row has it, so that scrolling stays exact. */
  readonly height: number;
  readonly onMore: (() => void) | undefined;
};

/** Only the rows that can be seen; asks for more before their end is reached. */
export function VirtualRows<R>({
  rows,
  columns,
  keyOf,
  isSelected,
  frame,
  total,
  height,
  onMore,
}: VirtualProps<R>) {
  // The library's functions must not be memoised, so the compiler is told to leave this component alone.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => height,
    overscan: 14,
    initialRect: { width: 900, height: 700 },
  });
  const shown = virtual.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (rows.length < total && last + AHEAD >= rows.length) onMore?.();
  }, [rows.length, total, last, onMore]);
  const above = shown[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0) + (total - rows.length) * height;
  return (
    <TableBody>
      <Space height={above} span={columns.length} />
      {shown.map(({ index }) => {
        const row = rows[index];
        if (row === undefined) return null;
        return (
          <SeenRow
            key={keyOf(row)}
            row={row}
            columns={columns}
            selected={isSelected?.(row)}
            index={index}
            height={height}
          />
        );
      })}
      <Space height={below} span={columns.length} />
    </TableBody>
  );
}

/** Stands for the rows that are not drawn. */
function Space({ height, span }: { readonly height: number; readonly span: number }) {
  if (height <= 0) return null;
  return (
    <tr aria-hidden="true" style={{ height }}>
      <td colSpan={span} />
    </tr>
  );
}

type RowProps<R> = {
  readonly row: R;
  readonly columns: readonly Column<R>[];
  readonly selected: boolean | undefined;
  readonly index?: number;
  readonly height?: number;
  readonly className?: string;
};

/** One row of a list. */
export function ListRow<R>({ row, columns, selected, index, height, className }: RowProps<R>) {
  return (
    <TableRow
      hover
      className={className}
      aria-selected={selected}
      aria-rowindex={index === undefined ? undefined : index + 2}
      style={height === undefined ? undefined : { height }}
    >
      {columns.map(({ id, kind, cell }) => (
        <TableCell key={id} className={kind}>
          {cell(row)}
        </TableCell>
      ))}
    </TableRow>
  );
}

/** While the list is scrolled only the rows that come into view are drawn; the others are kept. */
const SeenRow = memo(ListRow) as typeof ListRow;
