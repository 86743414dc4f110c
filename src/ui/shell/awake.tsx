'use client';

import { useEffect } from 'react';

/** Says on the page that it answers now: a click before that would be lost, and nobody could tell why. */
export function Awake() {
  useEffect(() => {
    document.documentElement.dataset['awake'] = 'true';
  }, []);
  return null;
}
