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

/**
 * Finds the known address that a new one was probably meant to be.
 *
 * One slip leaves either the front or the back of an address as it was, so only those are compared
 * that share one of them: thousands of new addresses among thousands of known ones take no longer
 * than a list of each.
 *
 * @returns for an address the known one that is a slip away from it, or `null`
 */
export function slipFinder(known: readonly string[]): (address: string) => string | null {
  const byEnd = new Map<string, string[]>();
  for (const each of known)
    for (const key of keysOf(each, each.length)) {
      const there = byEnd.get(key);
      if (there === undefined) byEnd.set(key, [each]);
      else there.push(each);
    }
  return (address) => {
    // The one that was meant may be a letter longer or shorter.
    for (const length of [address.length, address.length - 1, address.length + 1])
      for (const key of keysOf(address, length)) {
        const found = byEnd.get(key)?.find((each) => isOneSlipAway(address, each));
        if (found !== undefined) return found;
      }
    return null;
  };
}

/** The front and the back of an address of so many letters; two that are swapped touch one of them at most. */
function keysOf(address: string, length: number): [string, string] {
  const half = Math.max(0, Math.floor(length / 2) - 1);
  return [
    `${String(length)}<${address.slice(0, half)}`,
    `${String(length)}>${half === 0 ? '' : address.slice(-half)}`,
  ];
}
