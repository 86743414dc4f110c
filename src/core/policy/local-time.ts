import type { Moment } from '@/core/base/time';
import { HOUR, MINUTE } from '@/core/base/time';
import { zoneFormat } from '@/core/base/zone-format';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const clockIn = zoneFormat({
  weekday: 'short',
  hour: '2-digit',
  minute: '2-digit',
  hourCycle: 'h23',
});
/** The last quarter hour asked about in each zone: offsets change on whole ones only, and asking Intl is slow. */
const quarters = new Map<
  string,
  { readonly start: Moment; readonly weekday: number; readonly minute: number }
>();
const QUARTER = HOUR / 4;

/**
 * Weekday (1 is Monday) and minute of the day that clocks show in a zone. @throws RangeError where
 * the zone is unknown
 */
export function localTime(
  now: Moment,
  zone: string,
): { readonly weekday: number; readonly minute: number } {
  const start = Math.floor(now / QUARTER) * QUARTER;
  let quarter = quarters.get(zone);
  if (quarter?.start !== start) {
    const parts = Object.fromEntries(
      clockIn(zone)
        .formatToParts(start)
        .map(({ type, value }) => [type, value]),
    );
    quarter = {
      start,
      weekday: DAYS.indexOf(parts['weekday'] ?? '') + 1,
      minute: Number(parts['hour']) * 60 + Number(parts['minute']),
    };
    quarters.set(zone, quarter);
  }
  return { weekday: quarter.weekday, minute: quarter.minute + Math.floor((now - start) / MINUTE) };
}
