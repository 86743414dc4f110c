'use client';

import { useEffect, useRef } from 'react';
import type { OnRefused } from '@/ui/pages/refused';
import { usePageText } from '@/ui/pages/use-page-text';

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
  const { pieces, handlers } = usePageText(page, isAloudOnly, onRefused);
  const layer = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = layer.current;
    if (element === null || pieces === null) return;
    const { clientWidth } = element;
    element.querySelectorAll('span').forEach((span, i) => {
      const piece = pieces[i];
      if (piece === undefined) return;
      const wanted = (piece.width / 10_000) * clientWidth;
      span.style.transform = `scaleX(${String(wanted / Math.max(1, span.offsetWidth))})`;
    });
  }, [pieces]);

  if (pieces === null || pieces.length === 0) return null;
  return (
    <div
      className={isAloudOnly ? 'text aloud' : 'text'}
      ref={layer}
      data-testid="text-layer"
      {...handlers}
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
