'use client';

import { useCallback, useMemo, useSyncExternalStore } from 'react';
import { functionalUpdate, type ColumnSizingState, type Updater } from '@tanstack/react-table';

const listeners = new Set<() => void>();

/** Where the widths of a list are kept: with this browser, since they go by its screen. */
function placeOf(list: string): string {
  return `embargo.widths.${list}`;
}

function read(list: string): string {
  try {
    return localStorage.getItem(placeOf(list)) ?? '{}';
  } catch {
    return '{}';
  }
}

function parse(text: string): ColumnSizingState {
  try {
    const widths = JSON.parse(text) as Readonly<Record<string, unknown>>;
    return Object.fromEntries(
      Object.entries(widths).filter((each): each is [string, number] => Number.isFinite(each[1])),
    );
  } catch {
    return {};
  }
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}

/** The widths somebody gave a list's columns, in pixels, as they left them. */
export function useWidths(
  list: string,
): readonly [ColumnSizingState, (change: Updater<ColumnSizingState>) => void] {
  const text = useSyncExternalStore(
    subscribe,
    () => read(list),
    () => '{}',
  );
  const widths = useMemo(() => parse(text), [text]);
  const change = useCallback(
    (updater: Updater<ColumnSizingState>) => {
      const next = functionalUpdate(updater, parse(read(list)));
      try {
        localStorage.setItem(placeOf(list), JSON.stringify(next));
      } catch {
        // A browser that keeps nothing shows every list as it begins.
      }
      for (const listener of listeners) listener();
    },
    [list],
  );
  return [widths, change];
}
