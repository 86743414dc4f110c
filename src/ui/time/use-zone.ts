'use client';

import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

let found: string | null = null;

/** The browser's zone, asked once: asking takes long, and every moment on a screen wants to know. */
function zoneHere(): string {
  found ??= Intl.DateTimeFormat().resolvedOptions().timeZone;
  return found;
}

/** The zone of the person at the screen; UTC until the page runs in their browser. */
export function useZone(): string {
  return useSyncExternalStore(never, zoneHere, () => 'UTC');
}
