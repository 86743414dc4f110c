/**
 * Lines that end between words where they can, and within a word that is wider than a line.
 *
 * @param widthOf in the measure of `width`
 * @param most lines after which it is left off
 */
export function brokenLines(
  text: string,
  width: number,
  widthOf: (text: string) => number,
  most = Number.POSITIVE_INFINITY,
): string[] {
  if (widthOf(text) <= width) return [text];
  const lines: string[] = [];
  let line = '';
  let used = 0;
  const add = (piece: string): void => {
    if (line !== '' && piece.trim() !== '' && used + widthOf(piece.trimEnd()) > width) {
      lines.push(line);
      line = '';
      used = 0;
    }
    line += piece;
    used += widthOf(piece);
  };
  for (const word of text.match(/\S+\s*|\s+/gu) ?? []) {
    if (lines.length > most) break;
    if (widthOf(word.trimEnd()) <= width) add(word);
    else for (const character of word) add(character);
  }
  return [...lines, line];
}
