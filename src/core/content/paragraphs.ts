/** A piece of a page's text where it stands, in any unit that grows to the right and downwards. */
type Piece = {
  readonly text: string;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};

/** Parts of a line's height: nearer than these, pieces stand on one line, and lines in one paragraph. */
const SAME_LINE = 0.5;
const SAME_PARAGRAPH = 1.9;
/** Letters so much larger or smaller begin something else: a heading, a note. */
const OTHER_SIZE = 1.15;

function isSameLine(one: Piece, next: Piece): boolean {
  const height = Math.max(one.height, next.height);
  return Math.abs(one.top - next.top) < height * SAME_LINE && next.left >= one.left;
}

function goesOn(one: Piece, next: Piece): boolean {
  const [low, high] = [Math.min(one.height, next.height), Math.max(one.height, next.height)];
  if (high > low * OTHER_SIZE) return false;
  const down = next.top - one.top;
  return down > 0 && down < one.height * SAME_PARAGRAPH;
}

/** Whether a space stands between two pieces of one line; a piece ends where its last letter does. */
function isApart(one: Piece, next: Piece): boolean {
  return next.left - (one.left + one.width) > Math.min(one.height, next.height) * 0.12;
}

/** Scripts that set no spaces between words need none where a line was broken. */
function jointOf(before: string, after: string): string {
  if (/\s$/.test(before) || /^\s/.test(after)) return '';
  const closes = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}、。]$/u.test(before);
  const opens = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u.test(after);
  return closes && opens ? '' : ' ';
}

/**
 * The text of a page as paragraphs, in the order in which its pieces stand in the file: lines that
 * follow one another closely in letters of one size are put together. A word that was divided at the
 * end of a line keeps its hyphen, which may be its own.
 */
export function paragraphsOf(pieces: readonly Piece[]): readonly string[] {
  const paragraphs: string[] = [];
  let text = '';
  let last: Piece | null = null;
  for (const piece of pieces) {
    if (piece.text.trim() === '') continue;
    if (last === null) text = piece.text;
    else if (isSameLine(last, piece))
      text += (isApart(last, piece) ? jointOf(text, piece.text) : '') + piece.text;
    else if (goesOn(last, piece)) text += jointOf(text, piece.text) + piece.text;
    else {
      paragraphs.push(text.trim());
      text = piece.text;
    }
    last = piece;
  }
  return last === null ? [] : [...paragraphs, text.trim()];
}
