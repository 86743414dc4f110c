'use client';

import { useEffect, useRef, useState } from 'react';
import type { TextPiece } from '@/contracts/reader';
import { usePageSource } from '@/ui/pages/page-source';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';

/**
 * The text of a page over its picture, to be read aloud, and to be selected and copied where that is
 * allowed; each piece stretched to its place.
 */
export function TextLayer({
  page,
  isAloudOnly,
  onRefused,
}: {
  readonly page: number;
  /** For a screen reader: copying is held off here, by the reader alone. */
  readonly isAloudOnly: boolean;
  readonly onRefused: OnRefused;
}) {
  const source = usePageSource();
  const [pieces, setPieces] = useState<readonly TextPiece[]>([]);
  const layer = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const stop = new AbortController();
    source.text(page, stop.signal).then(setPieces, (error: unknown) => {
      if (error instanceof RefusedError) onRefused(error.reason, error.at);
    });
    return () => {
      stop.abort();
    };
  }, [source, page, onRefused]);

  useEffect(() => {
    const element = layer.current;
    if (element === null) return;
    const { clientWidth } = element;
    element.querySelectorAll('span').forEach((span, i) => {
      const piece = pieces[i];
      if (piece === undefined) return;
      const wanted = (piece.width / 10_000) * clientWidth;
      span.style.transform = `scaleX(${String(wanted / Math.max(1, span.offsetWidth))})`;
    });
  }, [pieces]);

  if (pieces.length === 0) return null;
  return (
    <div
      className={isAloudOnly ? 'text aloud' : 'text'}
      ref={layer}
      data-testid="text-layer"
      onContextMenu={(event) => {
        if (isAloudOnly) event.preventDefault();
      }}
      onCopy={(event) => {
        if (isAloudOnly) event.preventDefault();
        const characters = window.getSelection()?.toString().length ?? 0;
        if (characters === 0) return;
        // What the server answers is nothing, but where the right has ended.
        source.noteCopied(page, characters).catch((error: unknown) => {
          if (error instanceof RefusedError) onRefused(error.reason, error.at);
        });
      }}
    >
      {pieces.map((piece, i) => (
        <span
          key={i}
          style={{
            left: `${String(piece.left / 100)}%`,
            top: `${String(piece.top / 100)}%`,
            // Of the page's height, so that it stays in place at any zoom.
            fontSize: `${String(piece.height / 100)}cqh`,
          }}
        >
          {piece.text}
        </span>
      ))}
    </div>
  );
}
