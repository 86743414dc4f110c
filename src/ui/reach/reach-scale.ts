import {
  scaleTime,
  timeDay,
  timeHour,
  timeMonday,
  timeMonth,
  type CountableTimeInterval,
  type ScaleTime,
} from 'd3';
import { DAY } from '@/core/base/time';
import { momentText } from '@/core/base/moment-text';

/** What a board of lines is drawn by: pixels across for moments, and where the ticks stand. */
export type ReachScale = {
  readonly x: ScaleTime<number, number>;
  readonly width: number;
  readonly ticks: readonly Tick[];
  readonly step: CountableTimeInterval;
};
type Tick = { readonly at: number; readonly label: string };

const PIXELS_A_TICK = 70;

/** The finest calendar step that still leaves every tick room for its label. */
function ticksFor(x: ScaleTime<number, number>, width: number): Date[] {
  const most = Math.max(2, Math.floor(width / PIXELS_A_TICK));
  const [first, last] = x.domain() as [Date, Date];
  const every = [
    timeHour.every(6),
    timeDay,
    timeMonday,
    timeMonday.every(2),
    timeMonth,
    timeMonth.every(3),
  ];
  for (const interval of every) {
    const ticks = interval?.range(first, last) ?? [];
    if (ticks.length > 0 && ticks.length <= most) return ticks;
  }
  return x.ticks(most);
}

export function reachScale(
  [first, last]: readonly [number, number],
  width: number,
  zone: string,
): ReachScale {
  const x = scaleTime()
    .domain([new Date(first), new Date(last)])
    .range([0, width]);
  const ticks = ticksFor(x, width).map((date) => ({
    at: date.getTime(),
    label: momentText(date.getTime(), zone).split(' ').slice(0, 2).join(' '),
  }));
  return { x, width, ticks, step: last - first > 10 * DAY ? timeDay : timeHour };
}

/** The moment under a pixel, a whole number of steps from where it was, so that the time of day stays. */
export function snapTo({ x, step, width }: ReachScale, from: number, pixel: number): number {
  const wanted = x.invert(Math.max(0, Math.min(width, pixel)));
  const steps = Math.round((wanted.getTime() - from) / (step === timeDay ? DAY : DAY / 24));
  return step.offset(new Date(from), steps).getTime();
}
