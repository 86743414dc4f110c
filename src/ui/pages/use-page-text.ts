import { useEffect, useState } from 'react';
import type { TextPiece } from '@/contracts/reader';
import { usePageSource } from '@/ui/pages/page-source';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';

/** The text of a page, and what has to be done where it is copied; `null`: it is not there yet. */
export function usePageText(page: number, isAloudOnly: boolean, onRefused: OnRefused) {
  const source = usePageSource();
  const [found, setFound] = useState<{
    readonly page: number;
    readonly pieces: readonly TextPiece[];
  } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    source.text(page, stop.signal).then(
      (pieces) => {
        setFound({ page, pieces });
      },
      (error: unknown) => {
        if (error instanceof RefusedError) onRefused(error.reason, error.at);
      },
    );
    return () => {
      stop.abort();
    };
  }, [source, page, onRefused]);
  const held = (event: { readonly preventDefault: () => void }) => {
    if (isAloudOnly) event.preventDefault();
  };
  return {
    pieces: found?.page === page ? found.pieces : null,
    /** For an element that holds the text: for a screen reader alone, copying is held off by the reader. */
    handlers: {
      onContextMenu: held,
      onCopy: (event: { readonly preventDefault: () => void }) => {
        held(event);
        const characters = window.getSelection()?.toString().length ?? 0;
        if (characters === 0) return;
        // What the server answers is nothing, but where the right has ended.
        source.noteCopied(page, characters).catch((error: unknown) => {
          if (error instanceof RefusedError) onRefused(error.reason, error.at);
        });
      },
    },
  };
}
