'use client';

import { useEffect, type RefObject } from 'react';

/** Says which page lies in the middle of the view, whenever that is another one. */
export function useCurrentPage(
  list: RefObject<HTMLElement | null>,
  onPage: (page: number) => void,
  isOn: boolean,
): void {
  useEffect(() => {
    const scroller = list.current;
    if (scroller === null || !isOn) return undefined;
    let frame = 0;
    const look = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => {
        const { top, bottom } = scroller.getBoundingClientRect();
        const middle = (Math.max(0, top) + Math.min(window.innerHeight, bottom)) / 2;
        const frames = [...scroller.querySelectorAll('[data-page]')];
        const at = frames.findIndex((each) => each.getBoundingClientRect().bottom >= middle);
        onPage(at === -1 ? frames.length : at + 1);
      });
    };
    scroller.addEventListener('scroll', look, { passive: true });
    return () => {
      cancelAnimationFrame(frame);
      scroller.removeEventListener('scroll', look);
    };
  }, [list, onPage, isOn]);
}

/** Brings a page to the top of the view. */
export function showPage(list: RefObject<HTMLElement | null>, page: number): void {
  list.current
    ?.querySelector(`[data-page="${String(page)}"]`)
    ?.scrollIntoView({ block: 'start', inline: 'nearest' });
}
