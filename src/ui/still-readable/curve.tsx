import type { StillReadable } from '@/contracts/still-readable';
import { counted } from '@/core/base/counted';

const WIDTH = 240;
const HEIGHT = 44;

/** How many could still be read, hour by hour, as steps down to none. */
export function Curve({ curve }: Pick<StillReadable, 'curve'>) {
  const most = Math.max(1, ...curve.map(({ readable }) => readable));
  const hours = Math.max(1, curve.length - 1);
  const x = (hour: number): number => (hour / hours) * WIDTH;
  const y = (readable: number): number => HEIGHT - (readable / most) * (HEIGHT - 4);
  const steps = curve.map(({ readable }, hour) => {
    const level = y(readable).toFixed(1);
    return `${hour === 0 ? 'M' : 'H'}${hour === 0 ? `0 ${level}` : `${x(hour).toFixed(1)}V${level}`}`;
  });
  const first = curve[0]?.readable ?? 0;
  return (
    <svg
      className="still-curve"
      viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
      width="100%"
      height={HEIGHT}
      preserveAspectRatio="none"
      role="img"
      aria-label={`${counted(first, 'pair')} of a document and a person now, none after ${counted(hours, 'hour')}`}
    >
      <path
        d={steps.join('')}
        fill="none"
        stroke="currentColor"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
