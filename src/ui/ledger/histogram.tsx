'use client';

import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { useRouter } from 'next/navigation';
import {
  brushX,
  max,
  scaleLinear,
  scaleUtc,
  select,
  utcDay,
  type D3BrushEvent,
  type ScaleTime,
} from 'd3';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { dayText } from '@/core/base/moment-text';
import { ABOVE, BELOW, DayBars, DayScale, HEIGHT, SCALE } from '@/ui/ledger/histogram-parts';
import { addressOf } from '@/ui/ledger/ledger-address';
import { SpanForm } from '@/ui/ledger/span-form';

const dateOf = (day: string): Date => new Date(`${day}T00:00:00Z`);
const textOf = (date: Date): string => date.toISOString().slice(0, 10);

/** Every day from the first to the last, those without entries too. */
function filled(days: LedgerPage['days'], first: string, last: string): LedgerPage['days'] {
  const known = new Map(days.map((day) => [day.day, day]));
  return utcDay
    .range(dateOf(first), utcDay.offset(dateOf(last), 1))
    .map((date) => known.get(textOf(date)) ?? { day: textOf(date), granted: 0, refused: 0 });
}

type Props = {
  readonly days: LedgerPage['days'];
  readonly first: string;
  readonly last: string;
  readonly filter: LedgerInput;
};

/** Entries a day, refusals below the line; a stretch of days is picked with the brush, or typed. */
export function Histogram({ days, first, last, filter }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const bars = useMemo(() => filled(days, first, last), [days, first, last]);
  const x = useMemo(
    () =>
      scaleUtc()
        .domain([dateOf(first), utcDay.offset(dateOf(last), 1)])
        .range([0, width]),
    [first, last, width],
  );
  const layer = useBrush({ first, last, filter }, x, width);
  const up = scaleLinear()
    .domain([0, Math.max(4, max(bars, (bar) => bar.granted) ?? 0)])
    .range([0, ABOVE]);
  const down = scaleLinear()
    .domain([0, Math.max(4, max(bars, (bar) => bar.refused) ?? 0)])
    .range([0, BELOW]);
  const [from, to] = [filter.from?.slice(0, 10), filter.to?.slice(0, 10)];
  return (
    <div className="histogram-part">
      <div ref={frame}>
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Entries a day from ${dayText(first)} to ${dayText(last)}`}
          className="histogram"
        >
          <DayBars bars={bars} width={width} up={up} down={down} from={from} to={to} />
          <DayScale days={bars.map(({ day }) => day)} width={width} x={(day) => x(dateOf(day))} />
          <g ref={layer} />
        </svg>
      </div>
      <SpanForm
        key={`${filter.from ?? ''} ${filter.to ?? ''}`}
        filter={filter}
        first={first}
        last={last}
      />
    </div>
  );
}

/** The width of an element in CSS pixels, as it changes. */
function useWidth(frame: RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(740);
  useEffect(() => {
    if (frame.current === null) return undefined;
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.max(240, Math.floor(entry.contentRect.width)));
    });
    observer.observe(frame.current);
    return () => {
      observer.disconnect();
    };
  }, [frame]);
  return width;
}

/** The days that a stretch of the axis covers, whole; in order also where it is narrow. */
function daysOf(
  [left, right]: readonly [number, number],
  x: { readonly invert: (at: number) => Date },
): { readonly from: string; readonly to: string } {
  const start = utcDay.round(x.invert(left));
  const end = utcDay.offset(utcDay.round(x.invert(right)), -1);
  return { from: textOf(start), to: textOf(end < start ? start : end) };
}

/** Picks days by drawing over them; shows those that are picked. @returns where it is drawn */
function useBrush(
  { first, last, filter }: Omit<Props, 'days'>,
  x: ScaleTime<number, number>,
  width: number,
) {
  const router = useRouter();
  const layer = useRef<SVGGElement>(null);
  const [from, to] = [filter.from?.slice(0, 10), filter.to?.slice(0, 10)];
  useEffect(() => {
    if (layer.current === null) return undefined;
    const group = select<SVGGElement, unknown>(layer.current);
    const brush = brushX<unknown>()
      .extent([
        [0, 0],
        [width, ABOVE + SCALE + BELOW],
      ])
      .on('end', ({ selection, sourceEvent }: D3BrushEvent<unknown>) => {
        if (sourceEvent === undefined || sourceEvent === null) return;
        const span =
          selection === null
            ? { from: undefined, to: undefined }
            : daysOf(selection as [number, number], x);
        router.push(addressOf('/ledger', filter, span), { scroll: false });
      });
    group.call(brush);
    const isPicked = from !== undefined || to !== undefined;
    const left = Math.max(0, x(dateOf(from ?? first)));
    const right = Math.min(width, x(utcDay.offset(dateOf(to ?? last), 1)));
    brush.move(group, isPicked ? [left, right] : null);
    return () => {
      group.on('.brush', null);
      group.selectAll('*').remove();
    };
  }, [x, width, first, last, from, to, filter, router]);
  return layer;
}
