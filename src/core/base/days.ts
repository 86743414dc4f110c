import { DAY, MINUTE, type Moment } from '@/core/base/time';
import { zoneFormat } from '@/core/base/zone-format';

const wallIn = zoneFormat({
  hourCycle: 'h23',
  year: 'numeric',
  month: '2-digit',
  day: '2-digit',
  hour: '2-digit',
  minute: '2-digit',
});

/** A day as `2026-11-25`; the day after it. */
export function dayAfter(day: string): string {
  return new Date(Date.parse(`${day}T12:00:00Z`) + DAY).toISOString().slice(0, 10);
}

/** What the clocks of a zone are ahead of UTC at a moment, in ms. */
function offsetAt(moment: Moment, zone: string): number {
  const parts = Object.fromEntries(
    wallIn(zone)
      .formatToParts(moment)
      .map(({ type, value }) => [type, Number(value)]),
  );
  return (
    Date.UTC(
      parts['year'] ?? 0,
      (parts['month'] ?? 1) - 1,
      parts['day'] ?? 1,
      parts['hour'] ?? 0,
      parts['minute'] ?? 0,
    ) -
    Math.floor(moment / MINUTE) * MINUTE
  );
}

/**
 * The moment at which the clocks of a zone show `2026-03-03T14:00`, the earlier of two; where they
 * skip it, the first moment after.
 */
export function momentAt(text: string, zone: string): Moment {
  const shown = Date.parse(`${text}Z`);
  // The offset shortly before and shortly after may differ: the clocks may change on that very day.
  const [before, after] = [offsetAt(shown - DAY, zone), offsetAt(shown + DAY, zone)];
  const candidates = [shown - before, shown - after].filter(
    (moment) => moment + offsetAt(moment, zone) === shown,
  );
  return candidates.length > 0 ? Math.min(...candidates) : shown - Math.min(before, after);
}

/** The moment at which a day begins in a zone; where the clocks skip midnight, the first moment after. */
export function dayBegins(day: string, zone: string): Moment {
  return momentAt(`${day}T00:00`, zone);
}
