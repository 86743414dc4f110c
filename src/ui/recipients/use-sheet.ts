'use client';

import { useMemo, useState } from 'react';
import { commit, historyOf, redo, undo } from '@/core/compose/history';
import { termsOfRow, type Row, type Sheet } from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';

/** A sheet that is being worked on, with its steps. */
export type WorkedSheet = {
  readonly sheet: Sheet;
  /** The terms in common as they stand. */
  readonly common: Terms;
  readonly termsOf: (row: Row) => Terms;
  /** One step, which can be undone. */
  readonly change: (step: (sheet: Sheet, common: Terms) => Sheet) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
};

/** @param beginsOf the terms that chosen documents begin with, as long as nobody chose others */
export function useSheet(first: Sheet, beginsOf: (sheet: Sheet) => Terms): WorkedSheet {
  const [history, setHistory] = useState(() => historyOf(first));
  const sheet = history.present;
  const common = sheet.common ?? beginsOf(sheet);
  const termsOf = useMemo(() => remembered(common), [common]);
  return {
    sheet,
    common,
    termsOf,
    change: (step) => {
      setHistory((now) =>
        commit(now, step(now.present, now.present.common ?? beginsOf(now.present))),
      );
    },
    undo:
      history.past.length === 0
        ? null
        : () => {
            setHistory(undo);
          },
    redo:
      history.future.length === 0
        ? null
        : () => {
            setHistory(redo);
          },
  };
}

/** A row's terms are made once, so that a row that was not changed is not drawn again. */
function remembered(common: Terms): (row: Row) => Terms {
  const known = new WeakMap<Row, Terms>();
  return (row) => {
    const found = known.get(row) ?? termsOfRow(row, common);
    known.set(row, found);
    return found;
  };
}
