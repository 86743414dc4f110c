import type { Block } from '@/server/rendering/making/blocks';

/** Columns that a tab leads to the next multiple of. */
const TAB = 8;
/** Lines of one block: what is laid out at once stays small. */
const TOGETHER = 200;

function withoutTabs(line: string): string {
  let shown = '';
  for (const character of line)
    shown += character === '\t' ? ' '.repeat(TAB - (shown.length % TAB)) : character;
  return shown;
}

/** A text as it stands, line by line. */
export function textBlocks(text: string): Block[] {
  const lines = text
    .replaceAll(/\r\n?|\f/g, '\n')
    .split('\n')
    .map(withoutTabs);
  const blocks: Block[] = [];
  for (let at = 0; at < lines.length; at += TOGETHER)
    blocks.push({ kind: 'lines', text: lines.slice(at, at + TOGETHER).join('\n') });
  return blocks;
}
