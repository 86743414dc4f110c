'use client';

import { useCallback, useEffect, useState } from 'react';
import { CallError } from '@/ui/http/call';

const FIRST_WAIT = 2_000;
const LONGEST_WAIT = 30_000;

/** Whether what failed may work by itself in a while: there was no connection, or the server could not just then. */
export function mayPass(error: unknown): boolean {
  return (
    error instanceof CallError &&
    (error.status === 0 || error.status === 429 || error.status >= 500)
  );
}

/**
 * Counts tries: after each failure another one follows, ever later, and at once when the browser is
 * connected again.
 */
export function useAnotherTry(): { readonly attempt: number; readonly fail: () => void } {
  const [attempt, setAttempt] = useState(0);
  const [failed, setFailed] = useState<number | null>(null);
  const fail = useCallback(() => {
    setFailed(Date.now());
  }, []);
  useEffect(() => {
    if (failed === null) return undefined;
    const again = () => {
      setFailed(null);
      setAttempt((before) => before + 1);
    };
    const timer = setTimeout(again, Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** attempt));
    window.addEventListener('online', again);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', again);
    };
  }, [failed, attempt]);
  return { attempt, fail };
}
