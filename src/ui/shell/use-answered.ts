'use client';

import { useCallback, useEffect, useRef, useState } from 'react';

/**
 * A question that comes up in the middle of something else: the one who asks waits for the answer.
 * @returns whether it is being put, and what gives the answer
 */
export function useAnswered<T>(
  listen: (ask: (() => Promise<T>) | null) => void,
): readonly [boolean, (answer: T) => void] {
  const [open, setOpen] = useState(false);
  const settle = useRef<((answer: T) => void) | null>(null);
  useEffect(() => {
    listen(
      () =>
        new Promise((resolve) => {
          settle.current = resolve;
          setOpen(true);
        }),
    );
    return () => {
      listen(null);
    };
  }, [listen]);
  const answer = useCallback((given: T) => {
    setOpen(false);
    settle.current?.(given);
    settle.current = null;
  }, []);
  return [open, answer];
}
