'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { brushX, max, scaleLinear, scaleUtc, select, utcDay, type D3BrushEvent } from 'd3';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { addressOf } from '@/ui/ledger/ledger-address';
import { SpanForm } from '@/ui/ledger/span-form';
import { dayText } from '@/core/base/moment-text';

const ABOVE = 74;
const BELOW = 26;
const SCALE = 8;
const HEIGHT = ABOVE + SCALE + BELOW + 18;
const MOST_LABELS = 6;

const dateOf = (day: string): Date => new Date(`${day}T00:00:00Z`);
const textOf = (date: Date): string => date.toISOString().slice(0, 10);

/** Every day from the first to the last, those without entries too. */
function filled(days: LedgerPage['days'], first: string, last: string): LedgerPage['days'] {
  const known = new Map(days.map((day) => [day.day, day]));
  return utcDay
    .range(dateOf(first), utcDay.offset(dateOf(last), 1))
    .map((date) => known.get(textOf(date)) ?? { day: textOf(date), granted: 0, refused: 0 });
}

/** Entries a day, refusals below the line; a stretch of days is picked with the brush, or typed. */
export function Histogram({
  days,
  first,
  last,
  filter,
}: {
  readonly days: LedgerPage['days'];
  readonly first: string;
  readonly last: string;
  readonly filter: LedgerInput;
}) {
  const router = useRouter();
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<SVGGElement>(null);
  const [width, setWidth] = useState(740);
  const bars = useMemo(() => filled(days, first, last), [days, first, last]);
  const [from, to] = [filter.from?.slice(0, 10), filter.to?.slice(0, 10)];

  useEffect(() => {
    if (frame.current === null) return undefined;
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.max(240, Math.floor(entry.contentRect.width)));
    });
    observer.observe(frame.current);
    return () => {
      observer.disconnect();
    };
  }, []);

  const x = useMemo(
    () =>
      scaleUtc()
        .domain([dateOf(first), utcDay.offset(dateOf(last), 1)])
        .range([0, width]),
    [first, last, width],
  );
  const up = scaleLinear()
    .domain([0, Math.max(4, max(bars, (bar) => bar.granted) ?? 0)])
    .range([0, ABOVE]);
  const down = scaleLinear()
    .domain([0, Math.max(4, max(bars, (bar) => bar.refused) ?? 0)])
    .range([0, BELOW]);
  const step = width / Math.max(1, bars.length);
  const labels = bars.filter(
    (_bar, i) => i % Math.max(1, Math.ceil(bars.length / MOST_LABELS)) === 0,
  );
  const inside = (day: string): boolean =>
    (from === undefined || day >= from) && (to === undefined || day <= to);

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
        const span = selection as [number, number] | null;
        if (span === null) {
          router.push(addressOf('/ledger', filter, { from: undefined, to: undefined }), {
            scroll: false,
          });
          return;
        }
        const [start, end] = [
          utcDay.round(x.invert(span[0])),
          utcDay.offset(utcDay.round(x.invert(span[1])), -1),
        ];
        router.push(
          addressOf('/ledger', filter, {
            from: textOf(start),
            to: textOf(end < start ? start : end),
          }),
          { scroll: false },
        );
      });
    group.call(brush);
    const known = from !== undefined || to !== undefined;
    brush.move(
      group,
      known
        ? [
            Math.max(0, x(dateOf(from ?? first))),
            Math.min(width, x(utcDay.offset(dateOf(to ?? last), 1))),
          ]
        : null,
    );
    return () => {
      group.on('.brush', null);
      group.selectAll('*').remove();
    };
  }, [x, width, first, last, from, to, filter, router]);

  return (
    <div style={{ padding: '12px 22px 4px' }}>
      <div ref={frame}>
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Entries a day from ${dayText(first)} to ${dayText(last)}`}
          className="histogram"
        >
          {bars.map((bar, i) => (
            <g key={bar.day} opacity={inside(bar.day) ? 1 : 0.35}>
              <rect
                x={i * step + 0.5}
                width={Math.max(1, step - 1)}
                y={ABOVE - up(bar.granted)}
                height={up(bar.granted)}
                fill="var(--current)"
              />
              <rect
                x={i * step + 0.5}
                width={Math.max(1, step - 1)}
                y={ABOVE + SCALE}
                height={down(bar.refused)}
                fill="var(--magenta)"
              />
            </g>
          ))}
          {labels.map((bar, i) => (
            <rect
              key={bar.day}
              x={x(dateOf(bar.day))}
              y={ABOVE + 2}
              width={Math.max(
                0,
                (labels[i + 1] === undefined ? width : x(dateOf(labels[i + 1]?.day ?? last))) -
                  x(dateOf(bar.day)),
              )}
              height={4}
              fill={i % 2 === 1 ? 'var(--ink)' : 'var(--paper)'}
              stroke="var(--ink)"
              strokeWidth={0.7}
            />
          ))}
          {labels.map((bar) => (
            <text
              key={bar.day}
              x={x(dateOf(bar.day))}
              y={HEIGHT - 3}
              fontSize={11}
              fontFamily="var(--figure)"
              fill="var(--quiet)"
            >
              {dayText(bar.day).replace(/ \d{4}$/, '')}
            </text>
          ))}
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
