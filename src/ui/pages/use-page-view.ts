'use client';

import { useCallback, useEffect, useState } from 'react';
import type { PageSize } from '@/ui/pages/page-source';

export const ZOOM_STEPS = [0.25, 0.5, 0.75, 1, 1.25, 1.5, 2, 3, 4, 6] as const;
const SMALLEST = 0.1;
const LARGEST = 8;
/** CSS px a point has at a zoom of 1: 96 to an inch against 72. */
const PX_PER_POINT = 96 / 72;

export type Zoom = 'fit-width' | 'fit-page' | number;
export type PageView = {
  readonly zoom: Zoom;
  /** Quarter turns clockwise. */
  readonly turned: 0 | 1 | 2 | 3;
  /** One page at a time, or all below one another. */
  readonly single: boolean;
  readonly page: number;
};
const AT_FIRST: PageView = { zoom: 'fit-width', turned: 0, single: false, page: 1 };

/** How large a page is on the screen, in CSS px a point. */
export function scaleOf({ zoom, turned }: PageView, points: PageSize, room: PageSize): number {
  const [across, down] =
    turned % 2 === 0 ? [points.width, points.height] : [points.height, points.width];
  const wide = Math.max(40, room.width) / across;
  if (zoom === 'fit-width') return wide;
  if (zoom === 'fit-page') return Math.min(wide, Math.max(40, room.height) / down);
  return zoom * PX_PER_POINT;
}

/** The zoom that a scale is, to be shown and to go on from. */
export function zoomOf(scale: number): number {
  return scale / PX_PER_POINT;
}

export function boundedZoom(zoom: number): number {
  return Math.min(LARGEST, Math.max(SMALLEST, zoom));
}

/** The next step up or down from where one is. */
export function nextZoom(now: number, by: 1 | -1): number {
  const near = 0.01;
  const step =
    by === 1
      ? ZOOM_STEPS.find((each) => each > now + near)
      : ZOOM_STEPS.findLast((each) => each < now - near);
  return step ?? boundedZoom(by === 1 ? now * 1.25 : now / 1.25);
}

function isView(value: unknown): value is PageView {
  if (typeof value !== 'object' || value === null) return false;
  const { zoom, turned, single, page } = value as Partial<PageView>;
  return (
    (zoom === 'fit-width' || zoom === 'fit-page' || typeof zoom === 'number') &&
    typeof turned === 'number' &&
    typeof single === 'boolean' &&
    typeof page === 'number'
  );
}

const KEY = 'embargo view ';

function kept(name: string, pages: number): PageView {
  try {
    const found: unknown = JSON.parse(window.localStorage.getItem(KEY + name) ?? 'null');
    if (!isView(found)) return AT_FIRST;
    const zoom = typeof found.zoom === 'number' ? boundedZoom(found.zoom) : found.zoom;
    return { ...found, zoom, page: Math.max(1, Math.min(pages, Math.floor(found.page))) };
  } catch {
    return AT_FIRST;
  }
}

/** Lets go of where somebody was in every document: they leave this browser. */
export function forgetViews(): void {
  try {
    for (const key of Object.keys(window.localStorage))
      if (key.startsWith(KEY)) window.localStorage.removeItem(key);
  } catch {
    // Where nothing can be stored, nothing is.
  }
}

/**
 * How pages are looked at.
 *
 * @param name under which it is kept in this browser, to go on from another time; null: not kept
 */
export function usePageView(
  name: string | null,
  pages: number,
): readonly [PageView, (change: Partial<PageView>) => void] {
  const [view, setView] = useState<PageView>(() => (name === null ? AT_FIRST : kept(name, pages)));
  useEffect(() => {
    if (name === null) return;
    try {
      window.localStorage.setItem(KEY + name, JSON.stringify(view));
    } catch {
      // Where nothing can be stored, it begins at the first page another time.
    }
  }, [name, view]);
  const change = useCallback((part: Partial<PageView>) => {
    setView((before) => ({ ...before, ...part }));
  }, []);
  return [view, change];
}
