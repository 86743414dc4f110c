'use client';

import { useEffect, useState, type RefObject } from 'react';
import type { PageSize } from '@/ui/pages/page-source';

/** What is around a page within its list, in px. */
const AROUND = 36;

/** How much room there is for a page, in CSS px. */
export function useRoom(list: RefObject<HTMLElement | null>): PageSize {
  const [room, setRoom] = useState<PageSize>({ width: 800, height: 700 });
  useEffect(() => {
    const element = list.current;
    if (element === null) return undefined;
    const look = () => {
      const around = element.clientWidth < 700 ? AROUND / 2 : AROUND;
      setRoom({ width: element.clientWidth - around, height: element.clientHeight - around });
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => {
      observer.disconnect();
    };
  }, [list]);
  return room;
}
