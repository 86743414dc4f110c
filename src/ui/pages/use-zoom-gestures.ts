'use client';

import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';

/** Where on the pages somebody points, so that it stays there while they grow. */
type Anchor = { readonly x: number; readonly y: number; readonly scale: number };

function distance(touches: TouchList): number {
  const [one, other] = [touches[0], touches[1]];
  if (one === undefined || other === undefined) return 0;
  return Math.hypot(one.clientX - other.clientX, one.clientY - other.clientY);
}

/**
 * Zooms by the wheel with Ctrl, by a pinch on a touch pad, which browsers tell as such a wheel, and
 * by two fingers on a screen. What is pointed at stays where it is.
 *
 * @param scale as it is now, in CSS px a point
 */
export function useZoomGestures(
  list: RefObject<HTMLElement | null>,
  scale: number,
  onFactor: (factor: number) => void,
): void {
  const anchor = useRef<Anchor | null>(null);
  const now = useRef(scale);
  /** How far apart two fingers are, in px; 0: there are not two. */
  const apart = useRef(0);
  useLayoutEffect(() => {
    const before = now.current;
    now.current = scale;
    const element = list.current;
    if (element === null || before === scale) return;
    // Who is at the very top, as at first, stays there.
    if (anchor.current === null && element.scrollTop === 0 && element.scrollLeft === 0) return;
    const { left, top, width, height } = element.getBoundingClientRect();
    // Where nobody points, the middle of the view stays where it is.
    const held = anchor.current ?? { x: left + width / 2, y: top + height / 2, scale: before };
    const factor = scale / held.scale;
    element.scrollTo(
      (element.scrollLeft + held.x - left) * factor - (held.x - left),
      (element.scrollTop + held.y - top) * factor - (held.y - top),
    );
    anchor.current = null;
  }, [list, scale]);

  useEffect(() => {
    const element = list.current;
    if (element === null) return undefined;
    const zoom = (x: number, y: number, factor: number) => {
      anchor.current = { x, y, scale: now.current };
      onFactor(factor);
    };
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      zoom(event.clientX, event.clientY, Math.exp(-event.deltaY / 300));
    };
    const begin = (event: TouchEvent) => {
      apart.current = event.touches.length === 2 ? distance(event.touches) : 0;
    };
    const move = (event: TouchEvent) => {
      const [one, other] = [event.touches[0], event.touches[1]];
      if (apart.current === 0 || one === undefined || other === undefined) return;
      event.preventDefault();
      const next = distance(event.touches);
      if (Math.abs(next - apart.current) < 4) return;
      zoom(
        (one.clientX + other.clientX) / 2,
        (one.clientY + other.clientY) / 2,
        next / apart.current,
      );
      apart.current = next;
    };
    const ends = new AbortController();
    const active = { passive: false, signal: ends.signal };
    element.addEventListener('wheel', wheel, active);
    element.addEventListener('touchstart', begin, { passive: true, signal: ends.signal });
    element.addEventListener('touchmove', move, active);
    return () => {
      ends.abort();
    };
  }, [list, onFactor]);
}
