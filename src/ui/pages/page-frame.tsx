'use client';

import { memo, useEffect, useRef, useState, type ReactNode } from 'react';
import type { FoundPage } from '@/contracts/reader';
import { PageParts } from '@/ui/pages/page-parts';
import type { PageSize, TextFor } from '@/ui/pages/page-source';
import { TextLayer } from '@/ui/pages/text-layer';
import { useNear } from '@/ui/pages/use-near';
import { usePicture } from '@/ui/pages/use-picture';
import type { OnRefused } from '@/ui/pages/refused';
import { useWords } from '@/ui/words/use-words';

/** Where words stand on a page, and which of the places one is at. */
export type Hits = {
  readonly places: FoundPage['places'];
  readonly current: number | null;
};

type Props = {
  readonly page: number;
  readonly text: TextFor;
  /** CSS px a point. */
  readonly scale: number;
  readonly turned: 0 | 1 | 2 | 3;
  /** The size of a page, until the page itself says: as those before it. */
  readonly typical: PageSize;
  readonly onSize: (size: PageSize) => void;
  readonly onRefused: OnRefused;
  readonly hits: Hits | null;
  /** What else lies over a page. */
  readonly over: ((page: number) => ReactNode) | null;
};

const PICTURE_WIDTHS = [800, 1275, 1900, 2600];
const WIDEST = 2_600;
/** What lies under parts until they have come. */
const UNDER_PARTS = 1_275;

/** One page, asked for once it comes near the view: what was never near was never shown. */
export const PageFrame = memo(function PageFrame(props: Props) {
  const { page, scale, turned, typical, onSize, onRefused } = props;
  const { say } = useWords();
  const frame = useRef<HTMLDivElement>(null);
  const near = useNear(frame, page === 1);
  // A page keeps its own size once it was drawn, also where it is let go of again.
  const [own, setOwn] = useState<PageSize | null>(null);
  const size = own ?? typical;
  const wanted = size.width * scale * Math.min(2, globalThis.devicePixelRatio || 1);
  const width = PICTURE_WIDTHS.find((each) => each >= wanted) ?? UNDER_PARTS;
  const { picture, problem } = usePicture({ page, width }, near, onRefused);
  const points = picture?.points ?? null;
  if (points !== null && !isSameSize(points, own)) setOwn(points);
  useEffect(() => {
    if (points !== null) onSize(points);
  }, [points, onSize]);
  const [across, down] = [size.width * scale, size.height * scale];
  const [boxWidth, boxHeight] = turned % 2 === 0 ? [across, down] : [down, across];
  return (
    <div
      ref={frame}
      className={picture === null ? 'page awaited' : 'page'}
      data-page={page}
      style={{ width: boxWidth, height: boxHeight }}
    >
      {picture === null ? (
        <span role="status">{problem ?? say('pages.page', { page: String(page) })}</span>
      ) : (
        <Sheet {...props} url={picture.url} size={size} wanted={wanted} />
      )}
      <span className="number">{page}</span>
    </div>
  );
});

function isSameSize(one: PageSize, other: PageSize | null): boolean {
  return one.width === other?.width && one.height === other.height;
}

/** The page itself, and what lies over it. */
function Sheet({
  page,
  text,
  scale,
  turned,
  hits,
  over,
  onRefused,
  url,
  size,
  wanted,
}: Props & { readonly url: string; readonly size: PageSize; readonly wanted: number }) {
  const { say } = useWords();
  const [across, down] = [size.width * scale, size.height * scale];
  return (
    <div
      className="sheet"
      style={{ width: across, height: down, transform: turnedBy(turned, across, down) }}
    >
      <img
        src={url}
        alt={say('pages.page', { page: String(page) })}
        draggable={false}
        onContextMenu={(event) => {
          if (text !== 'copying') event.preventDefault();
        }}
      />
      {wanted > WIDEST && (
        <PageParts
          page={page}
          wanted={wanted}
          points={size}
          turned={turned}
          onRefused={onRefused}
        />
      )}
      {text !== 'nothing' && (
        <TextLayer page={page} isAloudOnly={text === 'aids'} onRefused={onRefused} />
      )}
      {hits !== null && <HitBoxes hits={hits} />}
      {over?.(page)}
    </div>
  );
}

/** Turned around its middle, and moved so that it lies in its box. */
function turnedBy(turned: 0 | 1 | 2 | 3, across: number, down: number): string | undefined {
  if (turned === 0) return undefined;
  const shift = turned % 2 === 0 ? 0 : (down - across) / 2;
  return `translate(${String(shift)}px, ${String(-shift)}px) rotate(${String(turned * 90)}deg)`;
}

/** Places where words were found. */
function HitBoxes({ hits: { places, current } }: { readonly hits: Hits }) {
  return (
    <div className="hits" aria-hidden="true">
      {places.flatMap((boxes, at) =>
        boxes.map(({ left, top, width, height }, i) => (
          <span
            key={`${String(at)} ${String(i)}`}
            className={at === current ? 'hit current' : 'hit'}
            style={{
              left: `${String(left / 100)}%`,
              top: `${String(top / 100)}%`,
              width: `${String(width / 100)}%`,
              height: `${String(height / 100)}%`,
            }}
          />
        )),
      )}
    </div>
  );
}
