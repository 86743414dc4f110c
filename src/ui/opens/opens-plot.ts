/** One day on which somebody opened something, as a disc on their line. `x` from 0 to 100 along the span, `r` in the plot's units. */
export type Disc = { readonly day: string; readonly opens: number; readonly x: number; readonly r: number };

const dayNumber = (day: string): number => Date.parse(`${day}T12:00:00Z`) / 86_400_000;

/** Discs of one person's days: their area goes with how often something was opened, the largest of all being `most`. */
export function discsOf(days: readonly { readonly day: string; readonly opens: number }[], span: { readonly first: string; readonly last: string }, most: number): Disc[] {
  const first = dayNumber(span.first);
  const length = Math.max(1, dayNumber(span.last) - first);
  return days.map(({ day, opens }) => ({ day, opens, x: (100 * (dayNumber(day) - first)) / length, r: 1.5 + 3 * Math.sqrt(opens / Math.max(1, most)) }));
}
