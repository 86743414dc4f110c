'use client';

import { useEffect, useState } from 'react';
import { sentenceOf } from '@/ui/http/call';
import { usePageSource, type LoadedPicture, type WantedPicture } from '@/ui/pages/page-source';
import { mayPass, useAnotherTry } from '@/ui/pages/use-another-try';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';

/** How long a size has to stand before a picture of it is asked for: zooming passes many. */
const SETTLES = 120;

/**
 * The picture of a page, or of a part of one, while it is wanted; the one before stays until the
 * next has come.
 */
export function usePicture(
  { page, width, column, row }: WantedPicture,
  isWanted: boolean,
  onRefused: OnRefused,
): { readonly picture: LoadedPicture | null; readonly problem: string | null } {
  const source = usePageSource();
  const [picture, setPicture] = useState<LoadedPicture | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { attempt, fail } = useAnotherTry();
  useEffect(() => {
    if (!isWanted) return undefined;
    const stop = new AbortController();
    const ask = async () => {
      const part = column === undefined || row === undefined ? {} : { column, row };
      const loaded = await source.picture({ page, width, ...part }, stop.signal);
      if (stop.signal.aborted) URL.revokeObjectURL(loaded.url);
      else {
        setPicture(loaded);
        setProblem(null);
      }
    };
    const timer = setTimeout(
      () => {
        ask().catch((error: unknown) => {
          if (stop.signal.aborted) return;
          if (error instanceof RefusedError) onRefused(error.reason, error.at);
          else {
            setProblem(sentenceOf(error));
            if (mayPass(error)) fail();
          }
        });
      },
      attempt === 0 ? SETTLES : 0,
    );
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [source, isWanted, page, width, column, row, onRefused, attempt, fail]);
  // A picture that another took the place of, or that nobody is near to, takes no memory.
  const url = picture?.url;
  useEffect(
    () => () => {
      if (url !== undefined) URL.revokeObjectURL(url);
    },
    [url],
  );
  if (!isWanted && picture !== null) setPicture(null);
  return { picture, problem };
}
