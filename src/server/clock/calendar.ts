import type { Moment } from '@/core/base/time';

/** Days as the organisation counts them. */
export type Calendar = {
  readonly dayOf: (moment: Moment) => string;
  readonly setZone: (zone: string) => void;
};

const HOUR = 3_600_000;

/** `2026-11-25` in a zone; the last hour asked for is remembered, since entries come in the order of time. */
export function createCalendar(zone: string): Calendar {
  let format = new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' });
  let last = { hour: Number.NaN, day: '' };
  return {
    dayOf: (moment) => {
      // Zones are apart by quarters of an hour at the finest, so no day begins inside one.
      const hour = Math.floor(moment / (HOUR / 4));
      if (hour !== last.hour) last = { hour, day: format.format(moment) };
      return last.day;
    },
    setZone: (next) => {
      format = new Intl.DateTimeFormat('en-CA', { timeZone: next, dateStyle: 'short' });
      last = { hour: Number.NaN, day: '' };
    },
  };
}
