import { counted } from '@/core/base/counted';
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

/** How far two moments are apart, in whole days, hours or minutes. */
export function spanParts(
  at: number,
  now: number,
): { readonly value: number; readonly unit: 'day' | 'hour' | 'minute' } {
  const span = Math.abs(at - now);
  if (span >= 2 * DAY) return { value: Math.floor(span / DAY), unit: 'day' };
  if (span >= 2 * HOUR) return { value: Math.floor(span / HOUR), unit: 'hour' };
  return { value: Math.floor(span / MINUTE), unit: 'minute' };
}

/** How far off a moment is: `36 days from now`, `2 hours ago`. */
export function distanceText(at: number, now: number): string {
  const { value, unit } = spanParts(at, now);
  const words = counted(value, unit);
  return at >= now ? `${words} from now` : `${words} ago`;
}

/** `17 Dec 2026 09:00 (Europe/Oslo)`: a moment for anyone who may be in another zone. */
export function zonedText(at: number, zone: string): string {
  return `${momentText(at, zone)} (${zone})`;
}
