import type { LedgerPage } from '@/contracts/ledger';
import { dayText } from '@/core/base/moment-text';

/** Heights in CSS pixels: of what was granted, of what was refused, of the scale between them. */
export const ABOVE = 74;
export const BELOW = 26;
export const SCALE = 8;
export const HEIGHT = ABOVE + SCALE + BELOW + 18;
const MOST_LABELS = 6;

/** A bar for each day: what was granted stands up, what was refused hangs down. */
export function DayBars({
  bars,
  width,
  up,
  down,
  from,
  to,
}: {
  readonly bars: LedgerPage['days'];
  readonly width: number;
  readonly up: (entries: number) => number;
  readonly down: (entries: number) => number;
  readonly from: string | undefined;
  readonly to: string | undefined;
}) {
  const step = width / Math.max(1, bars.length);
  const isInside = (day: string): boolean =>
    (from === undefined || day >= from) && (to === undefined || day <= to);
  return bars.map(({ day, granted, refused }, i) => (
    <g key={day} opacity={isInside(day) ? 1 : 0.35}>
      <rect
        x={i * step + 0.5}
        width={Math.max(1, step - 1)}
        y={ABOVE - up(granted)}
        height={up(granted)}
        fill="var(--current)"
      />
      <rect
        x={i * step + 0.5}
        width={Math.max(1, step - 1)}
        y={ABOVE + SCALE}
        height={down(refused)}
        fill="var(--magenta)"
      />
    </g>
  ));
}

/** The scale of a chart, light and dark by turns, with a day at the start of each part. */
export function DayScale({
  days,
  width,
  x,
}: {
  readonly days: readonly string[];
  readonly width: number;
  readonly x: (day: string) => number;
}) {
  const every = Math.max(1, Math.ceil(days.length / MOST_LABELS));
  const labels = days.filter((_day, i) => i % every === 0);
  return labels.map((day, i) => {
    const next = labels[i + 1];
    const end = next === undefined ? width : x(next);
    return (
      <g key={day}>
        <rect
          x={x(day)}
          y={ABOVE + 2}
          width={Math.max(0, end - x(day))}
          height={4}
          fill={i % 2 === 1 ? 'var(--ink)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={0.7}
        />
        <text
          x={x(day)}
          y={HEIGHT - 3}
          fontSize={11}
          fontFamily="var(--figure)"
          fill="var(--quiet)"
        >
          {dayText(day).replace(/ \d{4}$/, '')}
        </text>
      </g>
    );
  });
}
