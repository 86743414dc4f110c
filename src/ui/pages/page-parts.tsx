'use client';

import { useEffect, useRef, useState } from 'react';
import type { PageSize } from '@/ui/pages/page-source';
import { usePicture } from '@/ui/pages/use-picture';
import type { OnRefused } from '@/ui/pages/refused';

/** The side of a part in px, as the server cuts them. */
const SIDE = 1_024;
/** Widths of a page that parts are asked for in, in px; each is twice as fine as the one before. */
const LEVELS = [4_000, 8_000, 16_000, 20_000];

type Range = { readonly from: number; readonly to: number };
const NOTHING = { columns: { from: 0, to: -1 }, rows: { from: 0, to: -1 } };

type Props = {
  readonly page: number;
  /** How wide the page is wanted, in px of the screen. */
  readonly wanted: number;
  readonly points: PageSize;
  readonly turned: 0 | 1 | 2 | 3;
  readonly onRefused: OnRefused;
};

/** The parts of a page that are in view, sharp where a picture of the whole page would not be. */
export function PageParts({ page, wanted, points, turned, onRefused }: Props) {
  const layer = useRef<HTMLDivElement>(null);
  const level = LEVELS.find((each) => each >= wanted) ?? 20_000;
  const width = Math.min(level, 20_000, (20_000 * points.width) / points.height);
  const height = (width * points.height) / points.width;
  const [seen, setSeen] = useState<{ readonly columns: Range; readonly rows: Range }>(NOTHING);
  useEffect(() => {
    let frame = 0;
    const look = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => {
        if (layer.current !== null) setSeen(inView(layer.current, width, height, turned));
      });
    };
    look();
    document.addEventListener('scroll', look, { capture: true, passive: true });
    window.addEventListener('resize', look);
    return () => {
      cancelAnimationFrame(frame);
      document.removeEventListener('scroll', look, { capture: true });
      window.removeEventListener('resize', look);
    };
  }, [width, height, wanted, turned]);
  return (
    <div ref={layer} className="parts" aria-hidden="true">
      {within(seen.rows).flatMap((row) =>
        within(seen.columns).map((column) => (
          <Part
            key={`${String(width)} ${String(column)} ${String(row)}`}
            page={page}
            whole={{ width, height }}
            column={column}
            row={row}
            onRefused={onRefused}
          />
        )),
      )}
    </div>
  );
}

function within({ from, to }: Range): number[] {
  return Array.from({ length: Math.max(0, to - from + 1) }, (_each, i) => from + i);
}

type Turned = 0 | 1 | 2 | 3;

/** The part of the screen's box that is in the window, along one side, as shares of it; null: none. */
function shareSeen(start: number, size: number, room: number): readonly [number, number] | null {
  if (size <= 0 || start >= room || start + size <= 0) return null;
  return [Math.max(0, -start / size), Math.min(1, (room - start) / size)];
}

function flip([from, to]: readonly [number, number]): readonly [number, number] {
  return [1 - to, 1 - from];
}

/** Which parts meet the window, of a page that is cut at this size and lies turned by quarters. */
function inView(layer: HTMLElement, width: number, height: number, turned: Turned) {
  const box = layer.getBoundingClientRect();
  const x = shareSeen(box.left, box.width, window.innerWidth);
  const y = shareSeen(box.top, box.height, window.innerHeight);
  if (x === null || y === null) return NOTHING;
  const [across, down] = (
    [
      [x, y],
      [y, flip(x)],
      [flip(x), flip(y)],
      [flip(y), x],
    ] as const
  )[turned];
  const range = ([from, to]: readonly [number, number], size: number): Range => ({
    from: Math.floor((from * size) / SIDE),
    to: Math.min(Math.ceil(size / SIDE) - 1, Math.floor((to * size) / SIDE)),
  });
  return { columns: range(across, width), rows: range(down, height) };
}

function Part({
  page,
  whole,
  column,
  row,
  onRefused,
}: {
  readonly page: number;
  readonly whole: PageSize;
  readonly column: number;
  readonly row: number;
  readonly onRefused: OnRefused;
}) {
  const { picture } = usePicture(
    { page, width: Math.floor(whole.width), column, row },
    true,
    onRefused,
  );
  if (picture === null) return null;
  const share = (at: number, of: number): string => `${String((at / of) * 100)}%`;
  const [left, top] = [column * SIDE, row * SIDE];
  return (
    <img
      src={picture.url}
      alt=""
      draggable={false}
      style={{
        left: share(left, whole.width),
        top: share(top, whole.height),
        width: share(Math.min(SIDE, whole.width - left), whole.width),
        height: share(Math.min(SIDE, whole.height - top), whole.height),
      }}
    />
  );
}
