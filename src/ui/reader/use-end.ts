'use client';

import { useEffect, useEffectEvent } from 'react';

/** Timers stand still while a machine sleeps: the clock is looked at again this often, in ms. */
const LOOKS_EVERY = 10_000;

/**
 * Calls once when the end is reached, however this machine's clock stands: how long it is until then
 * comes from the server's.
 *
 * @param until the end, by the server's clock; null: there is none
 * @param asOf what the server's clock said when it told the end
 */
export function useEnd(
  until: number | null,
  asOf: number,
  onEnd: (isOver: () => boolean) => void,
): void {
  const ended = useEffectEvent(onEnd);
  useEffect(() => {
    if (until === null) return undefined;
    const left = until - asOf;
    const wall = Date.now();
    const steady = performance.now();
    let isOver = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      // The steady clock stands still during sleep, and the other one can be set back.
      const passed = Math.max(Date.now() - wall, performance.now() - steady);
      if (passed >= left) ended(() => isOver);
      else timer = setTimeout(look, Math.min(left - passed + 50, LOOKS_EVERY));
    };
    look();
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [until, asOf]);
}
