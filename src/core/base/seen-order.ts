import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** The embedding level of each UTF-16 unit of a line that is read from the left (Unicode Standard Annex 9). */
export function levelsOf(line: string): Uint8Array {
  return bidi.getEmbeddingLevels(line, 'ltr').levels;
}

/** Runs of a line in the order they are seen in (Unicode Standard Annex 9, rule L2). */
export function inSeenOrder<Run extends { readonly level: number }>(runs: readonly Run[]): Run[] {
  const ordered = [...runs];
  const highest = Math.max(0, ...runs.map(({ level }) => level));
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < ordered.length; from++) {
      let to = from;
      while (to < ordered.length && (ordered[to]?.level ?? 0) >= level) to++;
      ordered.splice(from, to - from, ...ordered.slice(from, to).reverse());
      from = to;
    }
  }
  return ordered;
}
