'use client';

import { startTransition, useEffect, useState } from 'react';

/** How long nothing changes before what follows from it is drawn anew, in ms: a change itself comes first. */
const PAUSE = 150;

/** What something was when it last stayed the same for a moment. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => {
      startTransition(() => {
        setSettled(value);
      });
    }, PAUSE);
    return () => {
      clearTimeout(timer);
    };
  }, [value]);
  return settled;
}
