'use client';

import { useEffect, type RefObject } from 'react';
import { usePageSource } from '@/ui/pages/page-source';

const TICK = 1_000;
const TELLS_EVERY = 15;
/** Nobody reads a page for this long without moving anything. */
const IDLE = 180_000;
/** A page counts as in view where it fills so much of the view, or so much of it is seen. */
const SHARE = 0.3;

function pagesInView(scroller: HTMLElement): number[] {
  const view = scroller.getBoundingClientRect();
  const room = Math.max(1, view.height);
  return [...scroller.querySelectorAll<HTMLElement>('[data-page]:not(.awaited)')].flatMap(
    (frame) => {
      const box = frame.getBoundingClientRect();
      const seen = Math.min(box.bottom, view.bottom) - Math.max(box.top, view.top);
      const counts = seen / room > SHARE || seen / Math.max(1, box.height) > SHARE;
      return counts ? [Number(frame.dataset['page'])] : [];
    },
  );
}

/** Tells the server every while how long which page was in view; not while nobody is there to see it. */
export function useReadingTimes(list: RefObject<HTMLElement | null>, isCovered: boolean): void {
  const source = usePageSource();
  useEffect(() => {
    const shown = new Map<number, number>();
    let movedAt = Date.now();
    let ticks = 0;
    const tell = () => {
      if (shown.size === 0) return;
      const pages = Array.from(shown, ([page, ms]) => ({ page, shown: ms })).slice(0, 200);
      shown.clear();
      // What could not be told is left out: it is a deterrent against nothing, and nobody waits for it.
      source.noteReading(pages).catch(() => undefined);
    };
    const look = () => {
      const isThere = !document.hidden && !isCovered && Date.now() - movedAt < IDLE;
      if (isThere && list.current !== null)
        for (const page of pagesInView(list.current))
          shown.set(page, (shown.get(page) ?? 0) + TICK);
      ticks++;
      if (ticks % (source.tellsEvery ?? TELLS_EVERY) === 0) tell();
    };
    const moved = () => {
      movedAt = Date.now();
    };
    const hidden = () => {
      if (document.hidden) tell();
    };
    const timer = setInterval(look, TICK);
    const ends = new AbortController();
    const options = { signal: ends.signal, passive: true, capture: true };
    for (const kind of ['scroll', 'pointermove', 'keydown', 'touchstart', 'wheel'] as const)
      document.addEventListener(kind, moved, options);
    document.addEventListener('visibilitychange', hidden, { signal: ends.signal });
    window.addEventListener('pagehide', tell, { signal: ends.signal });
    return () => {
      clearInterval(timer);
      ends.abort();
      tell();
    };
  }, [source, list, isCovered]);
}
