/**
 * Whether two texts are exactly one slip of the finger apart: a letter changed, left out, put in,
 * or two neighbours swapped (Damerau–Levenshtein distance 1).
 */
export function isOneSlipAway(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  let start = 0;
  while (start < a.length && a[start] === b[start]) start++;
  let endA = a.length;
  let endB = b.length;
  while (endA > start && endB > start && a[endA - 1] === b[endB - 1]) {
    endA--;
    endB--;
  }
  const [left, right] = [a.slice(start, endA), b.slice(start, endB)];
  if (left.length <= 1 && right.length <= 1) return true;
  return left.length === 2 && right === `${left.charAt(1)}${left.charAt(0)}`;
}

/** The known address that a new one was probably meant to be, or `null`. */
export function looksLike(address: string, known: readonly string[]): string | null {
  return known.find((each) => isOneSlipAway(address, each)) ?? null;
}
