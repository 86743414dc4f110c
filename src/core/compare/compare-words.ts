import { diffWordsWithSpace } from 'diff';

/** A stretch of text that both have, or that only one of them has. */
export type ComparedPiece = {
  readonly text: string;
  readonly change: 'same' | 'added' | 'removed';
};

/** Longer texts are not compared word by word. */
const MOST = 40_000;

/** What was taken out of a text and put into it, word by word; null where it is too long for that. */
export function compareWords(before: string, after: string): readonly ComparedPiece[] | null {
  if (before.length + after.length > MOST) return null;
  return diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
    text: value,
    change: added ? 'added' : removed ? 'removed' : 'same',
  }));
}
