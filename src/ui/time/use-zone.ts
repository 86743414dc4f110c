'use client';

import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/** The zone of the person at the screen; UTC until the page runs in their browser. */
export function useZone(): string {
  return useSyncExternalStore(
    never,
    () => Intl.DateTimeFormat().resolvedOptions().timeZone,
    () => 'UTC',
  );
}
