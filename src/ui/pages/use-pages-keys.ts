'use client';

import { useEffect } from 'react';

/** What keys do while one reads. */
export type PagesKeys = {
  readonly larger: () => void;
  readonly smaller: () => void;
  readonly fitWidth: () => void;
  readonly fitPage: () => void;
  readonly turn: () => void;
  readonly single: () => void;
  readonly fullScreen: () => void;
  readonly find: () => void;
  readonly nextPlace: (by: 1 | -1) => void;
  /** Null: the page scrolls by itself. */
  readonly page: ((to: 'before' | 'after' | 'first' | 'last') => void) | null;
};

/** The keys, to be told, and the message that says what each does. */
export const PAGES_KEYS = [
  ['+ −', 'zoom'],
  ['0', 'width'],
  ['9', 'page'],
  ['R', 'turn'],
  ['S', 'single'],
  ['F', 'full'],
  ['/, Ctrl F', 'find'],
  ['N, Shift N', 'place'],
  ['Page Up, Page Down', 'pages'],
] as const;

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [role="menu"], [role="dialog"]') !== null
  );
}

/** What each key does by itself. */
const SINGLE_KEYS = {
  '+': 'larger',
  '=': 'larger',
  '-': 'smaller',
  0: 'fitWidth',
  9: 'fitPage',
  r: 'turn',
  s: 'single',
  f: 'fullScreen',
  '/': 'find',
} as const;

function actionOf({ key, shiftKey }: KeyboardEvent, keys: PagesKeys): (() => void) | null {
  if (key.toLowerCase() === 'n')
    return () => {
      keys.nextPlace(shiftKey ? -1 : 1);
    };
  if (Object.hasOwn(SINGLE_KEYS, key)) return keys[SINGLE_KEYS[key as keyof typeof SINGLE_KEYS]];
  return keys.page === null ? null : pageAction(key, keys.page);
}

const PAGE_KEYS = {
  PageUp: 'before',
  ArrowLeft: 'before',
  PageDown: 'after',
  ArrowRight: 'after',
  Home: 'first',
  End: 'last',
} as const;

function pageAction(key: string, page: NonNullable<PagesKeys['page']>): (() => void) | null {
  if (!Object.hasOwn(PAGE_KEYS, key)) return null;
  const to = PAGE_KEYS[key as keyof typeof PAGE_KEYS];
  return () => {
    page(to);
  };
}

/** Listens for the keys; `Ctrl F` finds in the document, since the browser sees pictures only. */
export function usePagesKeys(keys: PagesKeys): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key === 'f') {
        event.preventDefault();
        keys.find();
        return;
      }
      if (command || event.altKey || isTyping(event.target)) return;
      const action = actionOf(event, keys);
      if (action === null) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', press);
    return () => {
      document.removeEventListener('keydown', press);
    };
  }, [keys]);
}
