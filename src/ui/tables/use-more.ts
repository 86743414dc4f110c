'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Page } from '@/contracts/page';
import { call, sentenceOf } from '@/ui/http/call';
import { addressWith } from '@/ui/tables/use-address';

export type More<R> = {
  readonly rows: readonly R[];
  readonly total: number;
  readonly problem: string | null;
  /** Fetches the next stretch, where there is one and none is on its way. */ readonly more: () => void;
};

/** A long list that grows as it is scrolled. `first` came with the page; a new one begins the list anew. */
export function useMore<R>(
  path: string,
  query: Readonly<Record<string, string | undefined>>,
  first: Page<R>,
): More<R> {
  const [page, setPage] = useState({ first, rows: first.rows, next: first.next });
  const [problem, setProblem] = useState<string | null>(null);
  const busy = useRef(false);
  const current = page.first === first ? page : { first, rows: first.rows, next: first.next };
  useEffect(() => {
    busy.current = false;
  }, [first]);

  const { rows, next } = current;
  const address = next === null ? null : addressWith(path, { ...query, after: next });
  const more = useCallback(() => {
    if (address === null || busy.current) return;
    busy.current = true;
    call<Page<R>>('GET', address)
      .then(
        (got) => {
          setPage({ first, rows: [...rows, ...got.rows], next: got.next });
          setProblem(null);
        },
        (error: unknown) => {
          setProblem(sentenceOf(error));
        },
      )
      .finally(() => {
        busy.current = false;
      });
  }, [address, rows, first]);
  return { rows, total: first.total, problem, more };
}
