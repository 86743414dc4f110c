import {
  scaleTime,
  timeDay,
  timeHour,
  timeMonday,
  timeMonth,
  utcDay,
  utcHour,
  utcMonday,
  utcMonth,
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

const LOCAL = { hour: timeHour, day: timeDay, monday: timeMonday, month: timeMonth };
const UTC = { hour: utcHour, day: utcDay, monday: utcMonday, month: utcMonth };

/**
 * The calendar that ticks follow. A page is drawn in UTC on the server, and so it is when a browser
 * takes it over: by its own calendar the first picture would be another one.
 */
function calendarOf(zone: string): typeof LOCAL {
  return zone === 'UTC' ? UTC : LOCAL;
}

/** The finest calendar step that still leaves every tick room for its label. */
function ticksFor(x: ScaleTime<number, number>, width: number, zone: string): Date[] {
  const most = Math.max(2, Math.floor(width / PIXELS_A_TICK));
  const [first, last] = x.domain() as [Date, Date];
  const { hour, day, monday, month } = calendarOf(zone);
  const every = [hour.every(6), day, monday, monday.every(2), month, month.every(3)];
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
  const ticks = ticksFor(x, width, zone).map((date) => ({
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
