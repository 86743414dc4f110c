'use client';

import { memo, useEffect, useRef, type ReactNode } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';

type Props<R> = {
  readonly label: string;
  readonly widths: readonly string[];
  readonly head: ReactNode;
  readonly rows: readonly R[];
  readonly total: number;
  readonly keyOf: (row: R) => string;
  readonly row: (row: R) => ReactNode;
  /** Height of a row in CSS pixels; every row has it, so that scrolling stays exact. */
  readonly height: number;
  readonly onMore: () => void;
};

const AHEAD = 40;

/** A table of any length, of which only what can be seen is drawn; it asks for more before its end is reached. */
export function LongTable<R>({
  label,
  widths,
  head,
  rows,
  total,
  keyOf,
  row,
  height,
  onMore,
}: Props<R>) {
  const frame = useRef<HTMLDivElement>(null);
  // The library's functions must not be memoised, so the compiler is told to leave this component alone.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => height,
    overscan: 14,
    initialRect: { width: 900, height: 700 },
  });
  const shown = virtual.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (rows.length < total && last + AHEAD >= rows.length) onMore();
  }, [rows.length, total, last, onMore]);
  const above = shown[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0) + (total - rows.length) * height;
  return (
    <div ref={frame} className="scroll" tabIndex={-1}>
      <table className="list fixed" aria-label={label} aria-rowcount={total + 1}>
        <colgroup>
          {widths.map((width, i) => (
            <col key={i} style={{ width }} />
          ))}
        </colgroup>
        <thead>{head}</thead>
        <tbody>
          {above > 0 && (
            <tr aria-hidden="true" style={{ height: above }}>
              <td colSpan={widths.length} />
            </tr>
          )}
          {shown.map((item) => {
            const each = rows[item.index];
            return each === undefined ? null : (
              <KeptRow key={keyOf(each)} each={each} row={row} index={item.index} height={height} />
            );
          })}
          {below > 0 && (
            <tr aria-hidden="true" style={{ height: below }}>
              <td colSpan={widths.length} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

function Row<R>({
  each,
  row,
  index,
  height,
}: {
  readonly each: R;
  readonly row: (row: R) => ReactNode;
  readonly index: number;
  readonly height: number;
}) {
  return (
    <tr aria-rowindex={index + 2} style={{ height }}>
      {row(each)}
    </tr>
  );
}

/** While the table is scrolled only the rows that come into view are drawn; the others are kept. */
const KeptRow = memo(Row) as typeof Row;
