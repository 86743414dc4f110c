'use client';

import { useMemo, useState } from 'react';
import Button from '@mui/material/Button';
import { counted } from '@/core/base/counted';
import { dropOwn, removeRows } from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';
import { PlainField } from '@/ui/forms/plain-field';
import {
  isDifferent,
  shownRows,
  type GridColumn,
  type GridFilter,
  type GridOrder,
  type GridRow,
} from '@/ui/recipients/grid-view';
import type { WorkedSheet } from '@/ui/recipients/use-sheet';
import { ChipButton } from '@/ui/shell/chips';

/** Rows from which on they are worth finding. */
const MANY = 9;

type Shown = {
  readonly rows: readonly GridRow[];
  readonly columns: readonly GridColumn[];
  readonly common: Terms;
  readonly concernOf: (key: string) => 'stops' | 'asks' | null;
};

export type GridTools = {
  readonly shown: readonly GridRow[];
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly filter: GridFilter;
  readonly setFilter: (filter: GridFilter) => void;
  readonly order: GridOrder;
  readonly setOrder: (order: GridOrder) => void;
  readonly counts: Readonly<Record<Exclude<GridFilter, 'all'>, number>>;
};

/** Which rows are shown, and in what order. */
export function useGridTools({ rows, columns, common, concernOf }: Shown): GridTools {
  const [text, setText] = useState('');
  const [filter, setFilter] = useState<GridFilter>('all');
  const [order, setOrder] = useState<GridOrder>(null);
  const isToLookAt = (key: string): boolean => concernOf(key) !== null;
  const counts = useMemo(
    () => ({
      different: rows.filter((each) => isDifferent(each, common, columns)).length,
      'to-look-at': rows.filter(({ row }) => concernOf(row.key) !== null).length,
      new: rows.filter(({ known }) => known?.known === false).length,
    }),
    [rows, common, columns, concernOf],
  );
  // A filter that nothing passes any more is let go of.
  const held = filter === 'all' || counts[filter] > 0 ? filter : 'all';
  const isPlain = text === '' && held === 'all' && order === null;
  const shown = isPlain
    ? rows
    : shownRows(rows, { text, filter: held, order, common, columns, isToLookAt });
  return {
    shown,
    text,
    setText,
    filter: held,
    setFilter,
    order,
    setOrder,
    counts,
  };
}

const FILTERS = [
  ['different', 'differ'],
  ['to-look-at', 'to look at'],
  ['new', 'new here'],
] as const;

/** Finding among the rows, and what is done with those that are selected. */
export function GridTools({
  tools,
  work,
  selected,
  total,
}: {
  readonly tools: GridTools;
  readonly work: WorkedSheet;
  readonly selected: ReadonlySet<string>;
  readonly total: number;
}) {
  return (
    <div className="grid-tools">
      {total >= MANY && (
        <PlainField
          className="grid-find"
          label="Find a recipient"
          placeholder="Find"
          value={tools.text}
          onText={tools.setText}
        />
      )}
      <span className="quiet">
        {tools.shown.length === total
          ? counted(total, 'recipient')
          : `${String(tools.shown.length)} of ${counted(total, 'recipient')}`}
      </span>
      {FILTERS.map(([filter, name]) =>
        tools.counts[filter] === 0 ? null : (
          <ChipButton
            key={filter}
            aria-pressed={tools.filter === filter}
            onClick={() => {
              tools.setFilter(tools.filter === filter ? 'all' : filter);
            }}
          >
            <span className="figure">{tools.counts[filter]}</span> {name}
          </ChipButton>
        ),
      )}
      {selected.size > 0 && (
        <>
          <b>{selected.size} selected</b>
          <Button
            variant="text"
            onClick={() => {
              work.change((sheet) => dropOwn(sheet, selected));
            }}
          >
            Use common terms
          </Button>
          <Button
            variant="text"
            onClick={() => {
              work.change((sheet) => removeRows(sheet, selected));
            }}
          >
            Remove
          </Button>
        </>
      )}
      <span className="gap" />
      <Button variant="text" disabled={work.undo === null} onClick={() => work.undo?.()}>
        Undo
      </Button>
      <Button variant="text" disabled={work.redo === null} onClick={() => work.redo?.()}>
        Redo
      </Button>
    </div>
  );
}
