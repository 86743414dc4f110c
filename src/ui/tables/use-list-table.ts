'use client';

import { useMemo, useState } from 'react';
import {
  columnResizingFeature,
  columnSizingFeature,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type ReactTable,
  type SortingState,
} from '@tanstack/react-table';
import type { Column, Order, OrderKey } from '@/ui/tables/column';
import { useWidths } from '@/ui/tables/use-widths';

const features = tableFeatures({
  rowSortingFeature,
  columnSizingFeature,
  columnResizingFeature,
  sortedRowModel: createSortedRowModel(),
});
export type ListFeatures = typeof features;

/** Narrowest a column can be made, in pixels. */
const NARROWEST = 36;

function compare(a: OrderKey, b: OrderKey): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), 'en', { numeric: true, sensitivity: 'base' });
}

function toDef<R extends object>(column: Column<R>): ColumnDef<ListFeatures, R> {
  const { id, width, orderBy, kind } = column;
  return {
    id,
    size: width,
    minSize: Math.min(NARROWEST, width),
    enableSorting: orderBy !== undefined,
    // What is not there has no place in the order, so that it comes last both ways.
    accessorFn: (row) => (typeof orderBy === 'function' ? (orderBy(row) ?? undefined) : undefined),
    sortUndefined: 'last',
    sortDescFirst: kind === 'number',
    sortFn: (a, b, by) => compare(a.getValue<OrderKey>(by), b.getValue<OrderKey>(by)),
  };
}

/**
 * The state of a list: its rows in order and its columns' widths. Where the server orders, the rows
 * stay as they came.
 */
export function useListTable<R extends object>(
  list: string,
  rows: readonly R[],
  columns: readonly Column<R>[],
  keyOf: (row: R) => string,
  order: Order | undefined,
): ReactTable<ListFeatures, R> {
  const [own, setOwn] = useState<SortingState>([]);
  const [widths, setWidths] = useWidths(list);
  const defs = useMemo(() => columns.map(toDef), [columns]);
  const given = order?.by == null ? [] : [{ id: order.by, desc: order.down }];
  const sorting = order === undefined ? own : given;
  return useTable<ListFeatures, R>({
    features,
    columns: defs,
    data: rows,
    getRowId: keyOf,
    manualSorting: order !== undefined,
    enableMultiSort: false,
    columnResizeMode: 'onChange',
    state: { sorting, columnSizing: widths },
    onColumnSizingChange: setWidths,
    onSortingChange: (updater) => {
      const next = typeof updater === 'function' ? updater(sorting) : updater;
      if (order === undefined) setOwn(next);
      else order.onOrder(next[0]?.id ?? null, next[0]?.desc ?? false);
    },
  });
}
