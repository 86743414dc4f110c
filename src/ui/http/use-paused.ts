'use client';

import { useEffect, useState } from 'react';

/** How long somebody pauses before what they typed is looked for, in ms. */
const PAUSE = 180;

/** What was typed, once the typing pauses. */
export function usePaused(text: string): string {
  const [paused, setPaused] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => {
      setPaused(text);
    }, PAUSE);
    return () => {
      clearTimeout(timer);
    };
  }, [text]);
  return paused;
}
