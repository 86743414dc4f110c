import { DAY, HOUR, MINUTE } from '@/core/base/time';
import { zoneFormat } from '@/core/base/zone-format';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

const momentIn = zoneFormat({
  day: 'numeric',
  month: 'numeric',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});
const nameIn = zoneFormat({ timeZoneName: 'short' });

/** `31 Dec 2026 17:00`: months of three letters, so that columns line up. */
export function momentText(at: number, zone: string): string {
  const parts = Object.fromEntries(
    momentIn(zone)
      .formatToParts(at)
      .map((part) => [part.type, part.value]),
  );
  return (
    `${parts['day'] ?? ''} ${MONTHS[Number(parts['month']) - 1] ?? ''} ${parts['year'] ?? ''} ` +
    `${parts['hour'] ?? ''}:${parts['minute'] ?? ''}`
  );
}

/** `08:00` for minutes since midnight. */
export function clockText(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}

/** `25 Nov 2026` for the day `2026-11-25`. */
export function dayText(day: string): string {
  const [year = '', month = '', date = ''] = day.split('-');
  return `${date} ${MONTHS[Number(month) - 1] ?? ''} ${year}`;
}

/** The zone's short name at that moment: `UTC`, `GMT+1`. */
export function zoneName(at: number, zone: string): string {
  return (
    nameIn(zone)
      .formatToParts(at)
      .find((part) => part.type === 'timeZoneName')?.value ?? zone
  );
}

/** How far off a moment is: `36 days from now`, `2 hours ago`. */
export function distanceText(at: number, now: number): string {
  const span = Math.abs(at - now);
  const [value, unit] =
    span >= 2 * DAY
      ? [span / DAY, 'day']
      : span >= 2 * HOUR
        ? [span / HOUR, 'hour']
        : [span / MINUTE, 'minute'];
  const whole = Math.floor(value);
  const words = `${String(whole)} ${unit}${whole === 1 ? '' : 's'}`;
  return at >= now ? `${words} from now` : `${words} ago`;
}

/** `17 Dec 2026 09:00 (Europe/Oslo)`: a moment for anyone who may be in another zone. */
export function zonedText(at: number, zone: string): string {
  return `${momentText(at, zone)} (${zone})`;
}
