/** Words in a row that are no accident: titles and turns of phrase are shorter. */
export const PASSAGE_WORDS = 14;

function wordsOf(text: string): string[] {
  return text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
}

function runsOf(words: readonly string[]): string[] {
  const count = words.length - PASSAGE_WORDS + 1;
  return Array.from({ length: Math.max(0, count) }, (_, at) =>
    words.slice(at, at + PASSAGE_WORDS).join(' '),
  );
}

/** Finds in texts a passage of another one: as many words in a row, whatever stands between them. */
export type PassageFinder = {
  /** Whether the other text is long enough to hold a passage at all. */
  readonly isLong: boolean;
  readonly isIn: (text: string) => boolean;
};

export function passagesOf(text: string): PassageFinder {
  const wanted = new Set(runsOf(wordsOf(text)));
  return {
    isLong: wanted.size > 0,
    isIn: (other) => wanted.size > 0 && runsOf(wordsOf(other)).some((run) => wanted.has(run)),
  };
}
