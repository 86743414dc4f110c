import mammoth from 'mammoth';
import { needSmallArchive } from '@/server/rendering/making/archive';
import type { Block } from '@/server/rendering/making/blocks';
import { htmlBlocks } from '@/server/rendering/making/html-blocks';
import { ContentError } from '@/core/pages/errors';

/** A Word file's text, headings, lists, tables and pictures. Macros are not run; what lies elsewhere is not fetched. */
export async function wordBlocks(bytes: Uint8Array): Promise<Block[]> {
  needSmallArchive(bytes);
  const html = await mammoth
    .convertToHtml({ buffer: Buffer.from(bytes) }, { externalFileAccess: false })
    .catch((cause: unknown) => {
      throw new ContentError('FILE_DAMAGED', { cause });
    });
  return htmlBlocks(html.value);
}
