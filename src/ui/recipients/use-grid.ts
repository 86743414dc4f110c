'use client';

import { useRef, useState } from 'react';
import { changeTerms, removeRows, type Sheet, type Target } from '@/core/compose/sheet';
import { isRightColumn } from '@/core/compose/columns';
import type { Terms } from '@/core/policy/rights';
import { rightsLine } from '@/core/policy/rights-line';
import { gridKeyOf, type GridKey } from '@/ui/recipients/grid-keys';
import {
  clearStep,
  countStep,
  fillStep,
  pasteStep,
  toggleStep,
  type Copied,
  type Step,
} from '@/ui/recipients/grid-steps';
import { isChangeable, type GridColumn, type GridRow } from '@/ui/recipients/grid-view';
import type { WorkedSheet } from '@/ui/recipients/use-sheet';

/** The row of the terms in common, among the keys of rows. */
export const COMMON = 'common';

/** The cell that keys act on. */
type Place = { readonly key: string; readonly column: GridColumn };

/** The cell whose editor is open, with the digit that opened it. */
export type Editing = { readonly column: GridColumn; readonly typed: number | null };

export type Grid = {
  readonly place: Place;
  readonly selected: ReadonlySet<string>;
  readonly editing: Editing | null;
  /** What else a change did, in words. */
  readonly said: string | null;
  /** Whose terms are changed: those of some rows, or the common ones. */
  readonly target: Target;
  /** @returns whether the key was for the grid */
  readonly pressed: (event: Parameters<typeof gridKeyOf>[0]) => boolean;
  readonly point: (place: Place, how: 'alone' | 'as-well' | 'up-to-here') => void;
  readonly toggle: (place: Place) => void;
  readonly edit: (place: Place) => void;
  readonly close: () => void;
  readonly setTerms: (change: (terms: Terms) => Terms) => void;
  readonly changeSheet: (change: (sheet: Sheet, keys: ReadonlySet<string>) => Sheet) => void;
  /** Takes what stands in the cell, or by a name in the whole row. @returns it in words */
  readonly copy: () => string;
  /** Puts what was copied here. @returns whether the text is what was copied here */
  readonly paste: (text: string) => boolean;
  readonly remove: () => void;
  readonly selectNone: () => void;
};

/** Digits of one number come close after each other, in ms. */
const TOGETHER = 1_200;

/** Which cell is active and which rows are selected. */
function useGridPlace(rows: readonly GridRow[], columns: readonly GridColumn[]) {
  const [wanted, setPlace] = useState<Place>({ key: COMMON, column: columns[0] ?? 'who' });
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<string | null>(null);
  const indexOf = (key: string): number => rows.findIndex(({ row }) => row.key === key);
  // A row may be gone since: undone, or filtered away.
  const place = indexOf(wanted.key) < 0 ? { ...wanted, key: COMMON } : wanted;
  const select = (from: string, to: string) => {
    const ends = [indexOf(from), indexOf(to)];
    const shown = rows.slice(Math.max(0, Math.min(...ends)), Math.max(...ends) + 1);
    setSelected(new Set(shown.map(({ row }) => row.key)));
  };
  const moveTo = (next: Place, extend: boolean) => {
    setPlace(next);
    const from = extend ? (anchor ?? place.key) : next.key;
    setAnchor(from);
    if (extend) select(from === COMMON ? next.key : from, next.key);
  };
  return {
    place,
    selected,
    target: targetOf(place.key, selected),
    setPlace,
    moveTo,
    move: (key: Extract<GridKey, { kind: 'move' }>) => {
      const row = Math.max(-1, Math.min(rows.length - 1, indexOf(place.key) + key.rows));
      const at = Math.max(0, columns.indexOf(place.column)) + key.columns;
      const column = columns[Math.max(0, Math.min(columns.length - 1, at))] ?? 'who';
      moveTo({ key: rows[row]?.row.key ?? COMMON, column }, key.extend);
    },
    selectAll: () => {
      setSelected(new Set(rows.map(({ row }) => row.key)));
    },
    selectNone: () => {
      setSelected(new Set());
      setAnchor(null);
    },
    selectAsWell: (key: string) => {
      const after = new Set(selected);
      if (!after.delete(key)) after.add(key);
      setSelected(after);
    },
    /** The row that comes to stand where this one is, once some are gone. */
    nextAfter: (gone: ReadonlySet<string>): string => {
      const left = rows.filter(({ row }) => !gone.has(row.key));
      return left[Math.min(indexOf(place.key), left.length - 1)]?.row.key ?? COMMON;
    },
  };
}

function targetOf(key: string, selected: ReadonlySet<string>): Target {
  if (key === COMMON) return 'common';
  return selected.has(key) ? selected : new Set([key]);
}

/** The number that digits typed one after the other make. */
function useTypedNumber(): (cell: string, digit: number) => number {
  const typed = useRef({ at: 0, text: '', cell: '' });
  return (cell, digit) => {
    const now = Date.now();
    const goesOn = typed.current.cell === cell && now - typed.current.at < TOGETHER;
    const text = `${goesOn ? typed.current.text : ''}${String(digit)}`.slice(-3);
    typed.current = { at: now, text, cell };
    return Number(text);
  };
}

/** What stands in a cell, in words: what another program is given of it. */
function copiedText(column: GridColumn, terms: Terms): string {
  if (column === 'ends')
    return terms.until === null ? 'no end' : new Date(terms.until).toISOString();
  if (column === 'opens') return String(terms.conditions?.opens ?? 'no limit');
  if (isChangeable(column) && isRightColumn(column))
    return terms.rights.includes(column) ? 'yes' : 'no';
  return rightsLine(terms.rights, terms.prints);
}

/** The cells that open an editor: what is common has no name and no documents of its own. */
function canEdit({ key, column }: Place): boolean {
  if (column === 'organisation' || column === 'read') return false;
  return key !== COMMON || (column !== 'who' && column !== 'documents');
}

/** Which cell is active, which rows are selected, and what keys and presses do to them. */
export function useGrid(
  work: WorkedSheet,
  rows: readonly GridRow[],
  columns: readonly GridColumn[],
): Grid {
  const at = useGridPlace(rows, columns);
  const { place, selected, target } = at;
  const [editing, setEditing] = useState<Editing | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const numberOf = useTypedNumber();
  const copied = useRef<(Copied & { readonly text: string }) | null>(null);

  const take = (made: Step | null): void => {
    if (made === null) return;
    setSaid(made.said);
    work.change(made.step);
  };
  const termsAt = (key: string): Terms =>
    rows.find(({ row }) => row.key === key)?.terms ?? work.common;
  const edit = (where: Place): void => {
    if (canEdit(where)) setEditing({ column: where.column, typed: null });
  };
  const toggle = (where: Place): void => {
    const made = toggleStep(where.column, termsAt(where.key), targetOf(where.key, selected));
    if (made === null) edit(where);
    else take(made);
  };
  const count = (digit: number): void => {
    if (place.column === 'ends') {
      setEditing({ column: 'ends', typed: digit });
      return;
    }
    const n = numberOf(`${place.key} ${place.column}`, digit);
    take(countStep(place.column, n, termsAt(place.key), target));
  };
  const remove = (): void => {
    if (target === 'common') return;
    const next = at.nextAfter(target);
    work.change((sheet) => removeRows(sheet, target));
    at.setPlace({ ...place, key: next });
    at.selectNone();
  };
  const copy = (): string => {
    const row = rows.find((each) => each.row.key === place.key);
    const terms = termsAt(place.key);
    const text = copiedText(place.column, terms);
    copied.current = { column: place.column, terms, without: row?.row.without ?? [], text };
    setSaid(place.column === 'who' ? 'Copied all this row is given.' : `Copied: ${text}`);
    return text;
  };
  const paste = (text: string): boolean => {
    const { current } = copied;
    if (current?.text !== text) return false;
    const made = pasteStep(current, place.column, target);
    if (made === null) setSaid('It was copied from another column. Paste it into the same one.');
    else take(made);
    return true;
  };
  const acts: Record<Exclude<GridKey['kind'], 'move' | 'count'>, () => void> = {
    toggle: () => {
      toggle(place);
    },
    edit: () => {
      edit(place);
    },
    clear: () => {
      take(clearStep(place.column, target));
    },
    'fill-down': () => {
      take(fillStep(place.column, rows, place.key === COMMON ? null : place.key, selected));
    },
    'select-all': at.selectAll,
    'select-none': at.selectNone,
    remove,
    undo: () => work.undo?.(),
    redo: () => work.redo?.(),
  };
  return {
    place,
    selected,
    editing,
    said,
    target,
    pressed: (event) => {
      const key = gridKeyOf(event);
      if (key === null) return false;
      setSaid(null);
      if (key.kind === 'move') at.move(key);
      else if (key.kind === 'count') count(key.digit);
      else acts[key.kind]();
      return true;
    },
    point: (where, how) => {
      setSaid(null);
      at.moveTo(where, how === 'up-to-here');
      if (how === 'as-well') at.selectAsWell(where.key);
      else if (how === 'alone' && !selected.has(where.key)) at.selectNone();
    },
    toggle: (where) => {
      at.setPlace(where);
      toggle(where);
    },
    edit: (where) => {
      at.setPlace(where);
      edit(where);
    },
    close: () => {
      setEditing(null);
    },
    setTerms: (change) => {
      work.change((sheet, common) => changeTerms(sheet, common, target, change));
    },
    changeSheet: (change) => {
      const keys = target === 'common' ? new Set(rows.map(({ row }) => row.key)) : target;
      work.change((sheet) => change(sheet, keys));
    },
    copy,
    paste,
    remove,
    selectNone: at.selectNone,
  };
}
