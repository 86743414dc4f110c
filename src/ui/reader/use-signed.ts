'use client';

import { useEffect, useState } from 'react';
import { readerCall } from '@/ui/reader/reader-call';

/** What a signed request brings: nothing yet, the answer, or what went wrong. */
export function useSigned<R>(path: string): {
  readonly found: R | null;
  readonly failed: unknown;
  readonly setFound: (found: R) => void;
} {
  const [found, setFound] = useState<R | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  useEffect(() => {
    let current = true;
    readerCall<R>('GET', path).then(
      (result) => {
        if (current) setFound(result);
      },
      (error: unknown) => {
        if (current) setFailed(error);
      },
    );
    return () => {
      current = false;
    };
  }, [path]);
  return { found, failed, setFound };
}
