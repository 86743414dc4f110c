import { mediaTypeOf, pagesFrom, type MediaType } from '@/core/content/media-types';
import type { Plain } from '@/core/own-machine/write-protected';
import { ContentError } from '@/core/pages/errors';
import { openPdf } from '@/core/pages/pdf-document';
import type { Pdfium } from '@/core/pages/pdfium';
import { isProtectedFile } from '@/core/wrapper/read';

/** As much of a file as tells what it is, in bytes. */
const HEAD = 4_096;

/**
 * What a file is that is to be encrypted where it lies, and how many pages are shown of it; 0: none,
 * since it is no PDF. `pdfium` is loaded only for one.
 *
 * @throws ContentError where it is empty, protected already, not what its name says, or cannot be drawn
 */
export async function lookAtPlain(
  { size, readAt }: Plain,
  fileName: string,
  pdfium: () => Promise<Pdfium>,
): Promise<{ readonly mediaType: MediaType; readonly pages: number }> {
  if (size === 0) throw new ContentError('EMPTY_FILE');
  const mediaType = mediaTypeOf(readAt(0, Math.min(HEAD, size)), fileName);
  if (mediaType === null) throw new ContentError('NOT_OF_ITS_NAME');
  if (pagesFrom(mediaType) !== 'itself') return { mediaType, pages: 0 };
  const read = (offset: number, length: number): Uint8Array =>
    readAt(offset, Math.max(0, Math.min(length, size - offset)));
  if (await isProtectedFile((offset, length) => Promise.resolve(read(offset, length)), size))
    throw new ContentError('PROTECTED_ALREADY');
  const document = openPdf(await pdfium(), { size, read, opened: () => 0 });
  const { pages } = document;
  document.close();
  return { mediaType, pages };
}
