/** A stretch of a line: its words, how they stand out, and where they lead. */
export type Run = {
  readonly text: string;
  readonly bold?: true;
  readonly italic?: true;
  /** An address of the web, as it was written. */
  readonly href?: string;
};

/** Lines that belong together: a paragraph, or the points of a list. */
export type Block = { readonly kind: 'paragraph' | 'list'; readonly lines: readonly Run[][] };

const POINT = /^\s*[-*•]\s+/;
const BOLD = String.raw`\*\*(?=\S)(.+?)(?<=\S)\*\*`;
/** Between underscores that stand at the edge of words, so that `TQ_412_GA` is none. */
const ITALIC = String.raw`(?<![\p{L}\p{N}_])_(?=\S)(.+?)(?<=\S)_(?![\p{L}\p{N}_])`;
/** Without the signs that end a sentence. */
const ADDRESS = String.raw`(https?:\/\/[^\s<>"]+[^\s<>".,;:!?)\]}'])`;
const INLINE = new RegExp([BOLD, ITALIC, ADDRESS].join('|'), 'gu');

function runsOf(line: string): Run[] {
  const runs: Run[] = [];
  let at = 0;
  for (const match of line.matchAll(INLINE)) {
    if (match.index > at) runs.push({ text: line.slice(at, match.index) });
    const [whole, bold, italic, href] = match;
    if (bold !== undefined) runs.push({ text: bold, bold: true });
    else if (italic !== undefined) runs.push({ text: italic, italic: true });
    else runs.push({ text: whole, href: href ?? whole });
    at = match.index + whole.length;
  }
  if (at < line.length) runs.push({ text: line.slice(at) });
  return runs;
}

/**
 * A note as paragraphs and lists. What is no formatting stands for itself, so that nothing that
 * somebody wrote is lost.
 */
export function formatted(text: string): Block[] {
  const blocks: { kind: Block['kind']; lines: Run[][] }[] = [];
  for (const part of text.replaceAll('\r\n', '\n').split(/\n\s*\n/)) {
    const lines = part.split('\n').filter((line) => line.trim() !== '');
    lines.forEach((line, at) => {
      const kind = POINT.test(line) ? 'list' : 'paragraph';
      const runs = runsOf((kind === 'list' ? line.replace(POINT, '') : line).trim());
      const last = blocks.at(-1);
      if (at > 0 && last?.kind === kind) last.lines.push(runs);
      else blocks.push({ kind, lines: [runs] });
    });
  }
  return blocks;
}
