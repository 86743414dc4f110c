'use client';

import { useEffect, useState } from 'react';

/** How long the key that takes a picture of the screen covers the pages. */
const AFTER_KEY = 4_000;

/**
 * Whether the pages are to be covered: while this window is not in front, and for a while after the
 * key that takes a picture of the screen. A deterrent, no more: a camera sees the screen all the
 * same.
 */
export function useCovered(asked: boolean): boolean {
  const [covered, setCovered] = useState(false);
  useEffect(() => {
    if (!asked) return undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      setCovered(document.hidden || !document.hasFocus());
    };
    const cover = () => {
      setCovered(true);
    };
    const key = (event: KeyboardEvent) => {
      if (event.key !== 'PrintScreen') return;
      setCovered(true);
      clearTimeout(timer);
      timer = setTimeout(look, AFTER_KEY);
    };
    look();
    const ends = new AbortController();
    const options = { signal: ends.signal };
    window.addEventListener('blur', cover, options);
    window.addEventListener('focus', look, options);
    document.addEventListener('visibilitychange', look, options);
    window.addEventListener('keydown', key, options);
    window.addEventListener('keyup', key, options);
    return () => {
      ends.abort();
      clearTimeout(timer);
    };
  }, [asked]);
  return asked && covered;
}
