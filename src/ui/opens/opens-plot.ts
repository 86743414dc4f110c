/**
 * Days next to each other on which somebody opened something, as a disc on their line. `x` from 0
 * to 100 along the span, `r` in the plot's units.
 */
export type Disc = {
  readonly first: string;
  readonly last: string;
  readonly opens: number;
  readonly x: number;
  readonly r: number;
};

/** Discs that a line holds side by side. */
const MOST_DISCS = 60;
const SMALLEST = 1.5;

const dayNumber = (day: string): number => Date.parse(`${day}T12:00:00Z`) / 86_400_000;

type Bin = { first: string; last: string; opens: number; days: number; sum: number };

/** Days as few as a line holds, in order; days that would lie on each other are one. */
function bins(
  days: readonly { readonly day: string; readonly opens: number }[],
  first: number,
  length: number,
): Bin[] {
  const found = new Map<number, Bin>();
  for (const { day, opens } of [...days].sort((a, b) => (a.day < b.day ? -1 : 1))) {
    const at = dayNumber(day) - first;
    const key = length <= MOST_DISCS ? at : Math.floor((at / length) * MOST_DISCS);
    const bin = found.get(key);
    if (bin === undefined) found.set(key, { first: day, last: day, opens, days: 1, sum: at });
    else
      Object.assign(bin, {
        last: day,
        opens: bin.opens + opens,
        days: bin.days + 1,
        sum: bin.sum + at,
      });
  }
  return [...found.values()];
}

/**
 * Discs of one person's days: their area goes with how often something was opened, `most` being the
 * largest there can be on one day.
 */
export function discsOf(
  days: readonly { readonly day: string; readonly opens: number }[],
  span: { readonly first: string; readonly last: string },
  most: number,
): Disc[] {
  const start = dayNumber(span.first);
  const length = Math.max(1, dayNumber(span.last) - start);
  return bins(days, start, length).map(({ first, last, opens, days: count, sum }) => ({
    first,
    last,
    opens,
    x: (100 * sum) / count / length,
    r: SMALLEST + 3 * Math.sqrt(Math.min(1, opens / Math.max(1, most))),
  }));
}
