'use client';

import { useMemo, useState } from 'react';
import Checkbox from '@mui/material/Checkbox';
import type { Column } from '@/ui/tables/column';

/** Which rows of a list are ticked. */
export type Ticks<Id extends string> = {
  readonly ticked: ReadonlySet<Id>;
  readonly tick: (ids: readonly Id[], on: boolean) => void;
  readonly clear: () => void;
};

/** Rows to be done something with together. */
export function useTicks<Id extends string>(): Ticks<Id> {
  const [ticked, setTicked] = useState<ReadonlySet<Id>>(new Set());
  return useMemo(
    () => ({
      ticked,
      tick: (ids, on) => {
        setTicked((before) => {
          const after = new Set(before);
          for (const id of ids) {
            if (on) after.add(id);
            else after.delete(id);
          }
          return after;
        });
      },
      clear: () => {
        setTicked(new Set());
      },
    }),
    [ticked],
  );
}

type Of<R, Id extends string> = {
  readonly rows: readonly R[];
  readonly ticks: Ticks<Id>;
  readonly idOf: (row: R) => Id;
  readonly nameOf: (row: R) => string;
  /** Whether a row can be ticked by the viewer. */
  readonly may: (row: R) => boolean;
  readonly all: string;
};

/** The column of ticks, with one at its head for every row that can be ticked. */
export function tickColumn<R, Id extends string>({
  rows,
  ticks: { ticked, tick },
  idOf,
  nameOf,
  may,
  all,
}: Of<R, Id>): Column<R> {
  const ids = rows.filter(may).map(idOf);
  const on = ids.filter((id) => ticked.has(id)).length;
  return {
    id: 'tick',
    header: '',
    width: 46,
    head: (
      <Checkbox
        disabled={ids.length === 0}
        checked={on > 0 && on === ids.length}
        indeterminate={on > 0 && on < ids.length}
        onChange={(_event, checked) => {
          tick(ids, checked);
        }}
        slotProps={{ input: { 'aria-label': all } }}
      />
    ),
    cell: (row) => (
      <Checkbox
        disabled={!may(row)}
        checked={ticked.has(idOf(row))}
        onChange={(_event, checked) => {
          tick([idOf(row)], checked);
        }}
        slotProps={{ input: { 'aria-label': `Select ${nameOf(row)}` } }}
      />
    ),
  };
}
