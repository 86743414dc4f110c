'use client';

import { useCallback, useMemo, useRef, useState } from 'react';
import type { FoundPage } from '@/contracts/reader';
import { sentenceOf } from '@/ui/http/call';
import { usePageSource } from '@/ui/pages/page-source';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';
import type { Hits } from '@/ui/pages/page-frame';

/** One place where words were found. */
type Place = { readonly page: number; readonly index: number };

/** A search through the pages, which goes on as long as there are any. */
export type Find = {
  readonly words: string;
  readonly found: readonly FoundPage[];
  readonly places: readonly Place[];
  readonly at: number | null;
  /** The page it has come to; null: it is not under way. */
  readonly searchingFrom: number | null;
  readonly problem: string | null;
  readonly start: (words: string) => void;
  readonly step: (by: 1 | -1) => void;
  readonly goTo: (at: number) => void;
  readonly hitsOn: (page: number) => Hits | null;
};

function hitsByPage(found: readonly FoundPage[], current: Place | null): ReadonlyMap<number, Hits> {
  return new Map(
    found.map(({ page, places }) => [
      page,
      { places, current: current?.page === page ? current.index : null },
    ]),
  );
}

export function useFind(onPage: (page: number) => void, onRefused: OnRefused): Find {
  const source = usePageSource();
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly FoundPage[]>([]);
  const [at, setAt] = useState<number | null>(null);
  const [searchingFrom, setSearchingFrom] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stop = useRef(new AbortController());
  const places = useMemo(
    () => found.flatMap(({ page, places: on }) => on.map((_boxes, index) => ({ page, index }))),
    [found],
  );

  const search = useCallback(
    async (wanted: string, signal: AbortSignal) => {
      let isFirst = true;
      for (let from: number | null = 1; from !== null;) {
        setSearchingFrom(from);
        const result = await source.find(wanted, from, signal);
        if (signal.aborted) return;
        setFound((before) => [...before, ...result.found]);
        const [first] = result.found;
        if (isFirst && first !== undefined) {
          isFirst = false;
          setAt(0);
          onPage(first.page);
        }
        from = result.next;
      }
      setSearchingFrom(null);
    },
    [source, onPage],
  );
  const start = useCallback(
    (wanted: string) => {
      stop.current.abort();
      stop.current = new AbortController();
      const { signal } = stop.current;
      setWords(wanted);
      setFound([]);
      setAt(null);
      setProblem(null);
      setSearchingFrom(null);
      if (wanted.trim().length < 2) return;
      search(wanted.trim(), signal).catch((error: unknown) => {
        if (signal.aborted) return;
        setSearchingFrom(null);
        if (error instanceof RefusedError) onRefused(error.reason, error.at);
        else setProblem(sentenceOf(error));
      });
    },
    [search, onRefused],
  );
  const goTo = (next: number) => {
    const place = places[next];
    if (place === undefined) return;
    setAt(next);
    onPage(place.page);
  };
  const current = at === null ? null : (places[at] ?? null);
  const byPage = useMemo(() => hitsByPage(found, current), [found, current]);
  return {
    words,
    found,
    places,
    at,
    searchingFrom,
    problem,
    start,
    goTo,
    step: (by) => {
      if (places.length > 0) goTo(((at ?? 0) + by + places.length) % places.length);
    },
    hitsOn: (page) => byPage.get(page) ?? null,
  };
}
