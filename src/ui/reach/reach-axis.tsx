'use client';

import type { ReachScale } from '@/ui/reach/reach-scale';

const HEIGHT = 46;
/** Room that a label takes; one that would be cut at the right edge is left out. */
const LABEL = 44;

/** The scale at the head of the lines, with today on it. */
export function ReachAxis({
  scale,
  now,
  nowLabel,
}: {
  readonly scale: ReachScale;
  readonly now: number;
  readonly nowLabel: string;
}) {
  const { x, width, ticks } = scale;
  const edges = [0, ...ticks.map((tick) => x(tick.at)), width];
  const nowX = Math.max(24, Math.min(width - 24, x(now)));
  return (
    <svg width={width} height={HEIGHT} aria-hidden="true" className="reach-line">
      {ticks
        .filter((tick) => x(tick.at) + LABEL <= width)
        .map((tick) => (
          <text
            key={tick.at}
            x={x(tick.at) + 3}
            y={HEIGHT - 14}
            fontSize={11}
            fontFamily="var(--figure)"
            fill="var(--quiet)"
          >
            {tick.label}
          </text>
        ))}
      {edges.slice(0, -1).map((edge, i) => (
        <rect
          key={edge}
          x={edge}
          y={HEIGHT - 8}
          width={Math.max(0, (edges[i + 1] ?? width) - edge)}
          height={5}
          fill={i % 2 === 1 ? 'var(--ink)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={0.8}
        />
      ))}
      <rect x={nowX - 24} y={0} width={48} height={16} fill="var(--ink)" />
      <text
        x={nowX}
        y={12}
        textAnchor="middle"
        fontSize={11}
        fontFamily="var(--figure)"
        fill="var(--paper)"
      >
        {nowLabel}
      </text>
      <line x1={x(now)} x2={x(now)} y1={16} y2={HEIGHT} stroke="var(--ink)" />
    </svg>
  );
}
