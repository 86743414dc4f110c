'use client';

import { useEffect, useState, type RefObject } from 'react';

/** What is this far from the view, in px, is loaded; what is further than that again is let go of. */
const NEAR = '150px';
const FAR = '4000px';

/**
 * Whether an element has come near the view, and not gone far from it since: pages that nobody is
 * near to take no memory.
 */
export function useNear(element: RefObject<HTMLElement | null>, atFirst: boolean): boolean {
  const [near, setNear] = useState(atFirst);
  useEffect(() => {
    const target = element.current;
    if (target === null) return undefined;
    const coming = new IntersectionObserver(
      (entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) setNear(true);
      },
      { rootMargin: NEAR },
    );
    const going = new IntersectionObserver(
      (entries) => {
        if (entries.every(({ isIntersecting }) => !isIntersecting)) setNear(false);
      },
      { rootMargin: FAR },
    );
    coming.observe(target);
    going.observe(target);
    return () => {
      coming.disconnect();
      going.disconnect();
    };
  }, [element]);
  return near;
}
