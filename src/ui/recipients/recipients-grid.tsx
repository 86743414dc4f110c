'use client';

import {
  useEffect,
  useMemo,
  useRef,
  type ClipboardEvent,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import { rowOf } from '@/core/compose/sheet';
import { columnHint, columnName } from '@/ui/recipients/grid-columns';
import { GridEditor } from '@/ui/recipients/grid-editors';
import { cellId, GridRowView, ROW, type RowHandlers } from '@/ui/recipients/grid-row';
import type { GridColumn, GridDocument, GridOrder, GridRow } from '@/ui/recipients/grid-view';
import { COMMON, useGrid, type Grid } from '@/ui/recipients/use-grid';
import type { WorkedSheet } from '@/ui/recipients/use-sheet';

type Props = {
  readonly work: WorkedSheet;
  /** The rows that are shown, in their order. */
  readonly rows: readonly GridRow[];
  readonly columns: readonly GridColumn[];
  readonly documents: readonly GridDocument[];
  readonly now: number;
  readonly order: GridOrder;
  readonly onOrder: (order: GridOrder) => void;
  readonly concernOf: (key: string) => 'stops' | 'asks' | null;
  /** What was pasted onto the grid. */
  readonly onPaste: (text: string) => void;
  /** Told whenever another row is active or others are selected. */
  readonly onPlace: (place: { readonly key: string; readonly selected: Grid['selected'] }) => void;
};

/** Row and terms of what is common, as the grid shows it. */
const COMMON_ROW = rowOf(COMMON, 'person');

/**
 * Recipients and what each may do, changed in place: arrows move, space switches, digits count,
 * enter opens a cell. What a row has of its own is marked.
 */
export function RecipientsGrid(props: Props) {
  const { work, rows, columns, documents, now, onPaste, onPlace } = props;
  const frame = useRef<HTMLDivElement>(null);
  const grid = useGrid(work, rows, columns);
  const { place, selected } = grid;
  useEffect(() => {
    onPlace({ key: place.key, selected });
  }, [onPlace, place.key, selected]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || !grid.pressed(event)) return;
    event.preventDefault();
  };
  const pasted = (event: ClipboardEvent) => {
    if (event.target instanceof HTMLInputElement) return;
    event.preventDefault();
    const text = event.clipboardData.getData('text');
    if (!grid.paste(text)) onPaste(text);
  };
  const onCopy = (event: ClipboardEvent) => {
    if (event.target !== event.currentTarget) return;
    event.preventDefault();
    event.clipboardData.setData('text', grid.copy());
  };
  const active = rows.find(({ row }) => row.key === place.key);
  return (
    <>
      <div
        ref={frame}
        className="scroll grid-frame"
        role="grid"
        tabIndex={0}
        aria-label="Recipients and rights"
        aria-rowcount={rows.length + 2}
        aria-multiselectable
        aria-activedescendant={cellId(place.key, place.column)}
        onKeyDown={onKeyDown}
        onCopy={onCopy}
        onPaste={pasted}
      >
        <Table role="presentation" className="recipients-grid">
          <GridHead {...props} grid={grid} />
          <GridBody {...props} grid={grid} frame={frame} />
        </Table>
      </div>
      <p className="grid-said" role="status">
        {grid.said}
      </p>
      <GridEditor
        grid={grid}
        terms={active?.terms ?? work.common}
        rows={rows}
        documents={documents}
        now={now}
        onClosed={() => frame.current?.focus()}
      />
    </>
  );
}

/** Handlers that stay the same, so that rows which did not change are not drawn again. */
function useHandlers(grid: Grid): RowHandlers {
  const latest = useRef(grid);
  useEffect(() => {
    latest.current = grid;
  });
  return useMemo(
    () => ({
      point: (...args) => {
        latest.current.point(...args);
      },
      toggle: (place) => {
        latest.current.toggle(place);
      },
      edit: (place) => {
        latest.current.edit(place);
      },
    }),
    [],
  );
}

function GridHead({
  work,
  columns,
  documents,
  order,
  onOrder,
  grid,
}: Props & { readonly grid: Grid }) {
  const handlers = useHandlers(grid);
  const each = useMemo(
    () => ({ row: COMMON_ROW, terms: work.common, known: undefined }),
    [work.common],
  );
  return (
    <TableHead role="rowgroup">
      <TableRow role="row" aria-rowindex={1}>
        {columns.map((column) => (
          <TableCell
            key={column}
            role="columnheader"
            className={`head-${column}`}
            title={columnHint(column)}
            aria-sort={order?.by === column ? (order.down ? 'descending' : 'ascending') : 'none'}
          >
            <TableSortLabel
              tabIndex={-1}
              hideSortIcon
              active={order?.by === column}
              direction={order?.by === column && order.down ? 'desc' : 'asc'}
              onClick={() => {
                onOrder(nextOrder(order, column));
              }}
            >
              {columnName(column)}
            </TableSortLabel>
          </TableCell>
        ))}
      </TableRow>
      <GridRowView
        each={each}
        common={work.common}
        columns={columns}
        active={grid.place.key === COMMON ? grid.place.column : null}
        selected={false}
        concern={null}
        documents={documents.length}
        index={2}
        handlers={handlers}
      />
    </TableHead>
  );
}

/** Up, then down, then as the rows came. */
function nextOrder(order: GridOrder, by: GridColumn): GridOrder {
  if (order?.by !== by) return { by, down: false };
  return order.down ? null : { by, down: true };
}

/** Rows up to which all are drawn: the browser then finds text in them, and prints them. */
const FEW = 60;

type BodyProps = Props & { readonly grid: Grid; readonly frame: RefObject<HTMLDivElement | null> };

function GridBody(props: BodyProps) {
  return props.rows.length > FEW ? <SeenRows {...props} /> : <AllRows {...props} />;
}

function AllRows(props: BodyProps) {
  const { rows, columns, grid } = props;
  const handlers = useHandlers(grid);
  const { key, column } = grid.place;
  useEffect(() => {
    if (key !== COMMON)
      document.getElementById(cellId(key, column))?.scrollIntoView({ block: 'nearest' });
  }, [key, column]);
  return (
    <TableBody role="rowgroup">
      {rows.map((each, index) => (
        <BodyRow key={each.row.key} {...props} each={each} index={index} handlers={handlers} />
      ))}
      {rows.length === 0 && <Space height={ROW} span={columns.length} />}
    </TableBody>
  );
}

function BodyRow({
  work,
  columns,
  documents,
  concernOf,
  grid: { place, selected },
  each,
  index,
  handlers,
}: BodyProps & {
  readonly each: GridRow;
  readonly index: number;
  readonly handlers: RowHandlers;
}) {
  const { key } = each.row;
  return (
    <GridRowView
      each={each}
      common={work.common}
      columns={columns}
      active={key === place.key ? place.column : null}
      selected={selected.has(key)}
      concern={concernOf(key)}
      documents={documents.length}
      index={index + 3}
      handlers={handlers}
    />
  );
}

/** The rows that can be seen, and room for the others. */
function SeenRows(props: BodyProps) {
  const { rows, columns, grid, frame } = props;
  const handlers = useHandlers(grid);
  // The library's functions must not be memoised, so the compiler is told to leave this component alone.
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
    initialRect: { width: 796, height: 560 },
    // The heads and the common terms lie over the first rows.
    scrollPaddingStart: 2 * ROW,
  });
  const at = rows.findIndex(({ row }) => row.key === grid.place.key);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // The library's object is another each time; only where the active row moved is it scrolled.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [at]);
  const shown = virtual.getVirtualItems();
  const above = shown[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0);
  return (
    <TableBody role="rowgroup">
      <Space height={above} span={columns.length} />
      {shown.map(({ index }) => {
        const each = rows[index];
        return each === undefined ? null : (
          <BodyRow key={each.row.key} {...props} each={each} index={index} handlers={handlers} />
        );
      })}
      <Space height={below} span={columns.length} />
    </TableBody>
  );
}

function Space({ height, span }: { readonly height: number; readonly span: number }) {
  if (height <= 0) return null;
  return (
    <tr aria-hidden="true" role="presentation" style={{ height }}>
      <td colSpan={span} />
    </tr>
  );
}
