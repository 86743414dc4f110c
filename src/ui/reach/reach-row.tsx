'use client';

import type { PointerEvent, KeyboardEvent } from 'react';
import type { ReachLine, ReachMark, Stretch } from '@/core/reach/lines';
import { snapTo, type ReachScale } from '@/ui/reach/reach-scale';

const ROW_HEIGHT = 38;
const MIDDLE = ROW_HEIGHT / 2;
const HATCH = 5;

type Props = {
  readonly line: ReachLine;
  readonly scale: ReachScale;
  readonly now: number;
  /** Where the end would be, while it is being moved; `undefined`: where it is. */
  readonly proposed: number | null | undefined;
  readonly name: string;
  readonly endText: string;
  /** Absent where this person's end cannot be changed. */
  readonly onPropose: ((until: number) => void) | undefined;
};

function StretchLine({
  stretch,
  scale,
}: {
  readonly stretch: Stretch;
  readonly scale: ReachScale;
}) {
  const x1 = scale.x(stretch.from);
  const x2 = stretch.until === null ? scale.width : scale.x(stretch.until);
  if (stretch.kind === 'waiting')
    return (
      <line
        x1={x1}
        x2={x2}
        y1={MIDDLE}
        y2={MIDDLE}
        stroke="var(--current)"
        strokeWidth={2}
        strokeDasharray="2 3"
      />
    );
  if (stretch.kind === 'offline') return <OfflineTail x1={x1} x2={x2} />;
  return (
    <line
      x1={x1}
      x2={x2}
      y1={MIDDLE}
      y2={MIDDLE}
      stroke={stretch.kind === 'cut' ? 'var(--quiet)' : 'var(--current)'}
      strokeOpacity={stretch.kind === 'cut' ? 0.5 : 0.85}
      strokeWidth={5}
    />
  );
}

/** Strokes that lean across the line, wherever on the board it begins. */
export function OfflineTail({
  x1,
  x2,
  middle = MIDDLE,
}: {
  readonly x1: number;
  readonly x2: number;
  readonly middle?: number;
}) {
  const strokes = Array.from(
    { length: Math.max(1, Math.floor((x2 - x1) / HATCH)) },
    (_, i) => `M${String(x1 + i * HATCH)} ${String(middle + 5)}l4-10`,
  );
  return (
    <path
      data-stretch="offline"
      d={strokes.join('')}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={1.3}
    />
  );
}

function ReachMarkShape({ kind, x }: { readonly kind: ReachMark['kind']; readonly x: number }) {
  // Above the line, so that an open at the same moment is not hidden.
  if (kind === 'changed')
    return (
      <path
        d={`M${String(x - 4)} ${String(MIDDLE - 14)}h8l-4 7Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
    );
  if (kind === 'opened')
    return (
      <circle
        cx={x}
        cy={MIDDLE}
        r={4}
        fill="var(--current)"
        stroke="var(--paper)"
        strokeWidth={0.8}
      />
    );
  if (kind === 'printed')
    return (
      <rect
        x={x - 4}
        y={MIDDLE - 4}
        width={8}
        height={8}
        fill="var(--paper)"
        stroke="var(--current)"
        strokeWidth={1.5}
      />
    );
  return (
    <path
      d={`M${String(x)} ${String(MIDDLE - 6)}l6 6-6 6-6-6ZM${String(x - 2)} ${String(MIDDLE - 2)}l4 4m0-4l-4 4`}
      fill="var(--paper)"
      stroke="var(--magenta)"
      strokeWidth={1.3}
    />
  );
}

/** One person's access over time: when it could be opened, when it was, when it was refused, when it ends. */
export function ReachRow(props: Props) {
  const { line, scale, now, proposed } = props;
  const { x, width } = scale;
  return (
    <svg className="reach-line" width={width} height={ROW_HEIGHT}>
      {scale.ticks.map((tick) => (
        <line
          key={tick.at}
          x1={x(tick.at)}
          x2={x(tick.at)}
          y1={0}
          y2={ROW_HEIGHT}
          stroke="var(--hair)"
        />
      ))}
      <line x1={0} x2={width} y1={MIDDLE} y2={MIDDLE} stroke="var(--hair)" />
      {line.stretches.map((stretch, i) => (
        // Several documents give the same stretch: what it is does not tell it apart.
        <StretchLine key={i} stretch={stretch} scale={scale} />
      ))}
      {proposed !== undefined && (
        <ProposedLine from={x(line.end ?? now)} to={endAt(scale, proposed)} />
      )}
      {line.marks.map((mark, i) => (
        <ReachMarkShape key={i} kind={mark.kind} x={x(mark.at)} />
      ))}
      {line.revokedAt === null ? (
        <EndHandle {...props} />
      ) : (
        <line
          x1={x(line.revokedAt) - 5}
          x2={x(line.revokedAt) + 5}
          y1={MIDDLE - 8}
          y2={MIDDLE + 8}
          stroke="var(--magenta)"
          strokeWidth={2.4}
        />
      )}
      <line x1={x(now)} x2={x(now)} y1={0} y2={ROW_HEIGHT} stroke="var(--ink)" strokeWidth={1} />
    </svg>
  );
}

/** Where an end stands; without one, at the right edge. */
function endAt({ x, width }: ReachScale, end: number | null): number {
  return end === null ? width - 3 : Math.min(width - 3, x(end));
}

function ProposedLine({ from, to }: { readonly from: number; readonly to: number }) {
  return (
    <line
      x1={Math.min(from, to)}
      x2={Math.max(from, to)}
      y1={MIDDLE}
      y2={MIDDLE}
      stroke="var(--lamp)"
      strokeWidth={5}
      strokeDasharray="4 2"
    />
  );
}

/** The end of a line, moved with the pointer or the arrow keys where it can be changed. */
function EndHandle({ line, scale, now, proposed, name, endText, onPropose }: Props) {
  const end = proposed === undefined ? line.end : proposed;
  const isFixed = onPropose === undefined;
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (isFixed || event.buttons !== 1) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (box !== undefined) onPropose(snapTo(scale, line.end ?? now, event.clientX - box.left));
  };
  const key = (event: KeyboardEvent<SVGGElement>) => {
    const steps = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (isFixed || steps === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const days = steps * (event.shiftKey ? 7 : 1);
    onPropose(scale.step.offset(new Date(end ?? now), days).getTime());
  };
  return (
    <g
      role="slider"
      className={isFixed ? undefined : 'end-handle'}
      tabIndex={isFixed ? -1 : 0}
      aria-label={`End of access for ${name}`}
      aria-valuetext={endText}
      aria-valuenow={end ?? 0}
      aria-disabled={isFixed}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onKeyDown={key}
      onClick={(event) => {
        event.stopPropagation();
      }}
    >
      <EndShape x={endAt(scale, end)} isOpen={end === null} isMoved={proposed !== undefined} />
    </g>
  );
}

/** An upright stroke for an end, an arrow for none. */
function EndShape({
  x,
  isOpen,
  isMoved,
}: {
  readonly x: number;
  readonly isOpen: boolean;
  readonly isMoved: boolean;
}) {
  return (
    <>
      <rect x={x - 8} y={4} width={16} height={ROW_HEIGHT - 8} fill="transparent" />
      {isOpen ? (
        <path
          d={`M${String(x - 4)} ${String(MIDDLE - 6)}l6 6-6 6`}
          fill="none"
          stroke="var(--lamp)"
          strokeWidth={2}
        />
      ) : (
        <line
          x1={x}
          x2={x}
          y1={MIDDLE - 8}
          y2={MIDDLE + 8}
          stroke={isMoved ? 'var(--lamp)' : 'var(--ink)'}
          strokeWidth={2.4}
        />
      )}
    </>
  );
}
