/** Spans of time in milliseconds; write durations as products of these. */
export const SECOND = 1_000;
export const MINUTE = 60 * SECOND;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;

/** A moment: milliseconds since 1970-01-01T00:00:00Z. */
export type Moment = number;

/** A moment as text with milliseconds in UTC (RFC 3339 §5.6), as every stored record spells it. */
export function toUtcText(moment: Moment): string {
  return new Date(moment).toISOString();
}
