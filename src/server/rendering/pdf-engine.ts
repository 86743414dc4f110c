import { isProtectedFile } from '@/core/wrapper/read';
import { annotate } from '@/server/rendering/annotate';
import { ContentError } from '@/server/rendering/errors';
import { inflationOf } from '@/server/rendering/inflation';
import { keepMarked } from '@/server/rendering/keep-marked';
import type { PageEngine } from '@/server/rendering/page-source';
import { openPdf } from '@/server/rendering/pdf-document';
import { loadPdfium } from '@/server/rendering/pdfium';

/** What all object streams of a document may unpack to, in bytes. */
const MOST_UNPACKED = 128 << 20;

/** PDFs, drawn by PDFium. It is loaded at once, so that the first reader does not wait for it. */
export function pdfEngine(): PageEngine {
  const pdfium = loadPdfium();
  return {
    open: async (reader) => openPdf(await pdfium, reader),
    check: async (reader) => {
      const read = async (offset: number, length: number): Promise<Uint8Array> =>
        Promise.resolve(reader.read(offset, Math.min(length, reader.size - offset)));
      if (await isProtectedFile(read, reader.size)) throw new ContentError('PROTECTED_ALREADY');
      if ((await inflationOf(reader, MOST_UNPACKED)) === 'beyond')
        throw new ContentError('PDF_UNPACKS_TOO_FAR');
    },
    annotate: (reader, notes) => annotate(reader.read(0, reader.size), notes),
    // A copy that is kept is read and printed at will: it bears what is for either, but for strips
    // beside the page, and has no number.
    keep: async (reader, watermark, shaped) =>
      keepMarked(
        reader.read(0, reader.size),
        await shaped(watermark.filter(({ place }) => place !== 'banner')),
      ),
  };
}
