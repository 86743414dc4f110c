'use client';

import { useEffect, useRef } from 'react';
import { useRouter } from 'next/navigation';

/** What an address says behind its path. */
export type Query = Readonly<Record<string, string | undefined>>;

/** A path with those of the query's members that are set. */
export function addressWith(path: string, query: Query): string {
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([key, value]): [string, string][] =>
      value === undefined || value === '' ? [] : [[key, value]],
    ),
  ).toString();
  return search === '' ? path : `${path}?${search}`;
}

const WAIT = 250;

/** Puts what is typed into the address once the typing pauses, so that the list follows and the view can be linked. */
export function useSearchInAddress(path: string, query: Query): (text: string) => void {
  const router = useRouter();
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(
    () => () => {
      clearTimeout(timer.current);
    },
    [],
  );
  return (text) => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      router.replace(addressWith(path, { ...query, q: text.trim() }), { scroll: false });
    }, WAIT);
  };
}
