import markdownIt from 'markdown-it';
import type { Block } from '@/server/rendering/making/blocks';
import { htmlBlocks } from '@/server/rendering/making/html-blocks';

/** HTML in it is shown as it is written. */
const markdown = markdownIt({ html: false, linkify: false });

/** A text in Markdown (CommonMark, with tables). Pictures that lie elsewhere are named, not fetched. */
export async function markdownBlocks(text: string): Promise<Block[]> {
  return htmlBlocks(markdown.render(text));
}
