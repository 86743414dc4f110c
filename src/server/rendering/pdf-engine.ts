import type { PlainReader } from '@/core/age/random-access';
import { isProtectedFile } from '@/core/wrapper/read';
import { ContentError } from '@/core/pages/errors';
import { inflationOf } from '@/server/rendering/inflation';
import type { Note, PageSource } from '@/core/pages/page-source';
import { openPdf } from '@/core/pages/pdf-document';
import { loadPdfium } from '@/core/pages/pdfium';

/** What all object streams of a document may unpack to, in bytes. */
const MOST_UNPACKED = 128 << 20;

/** What handles PDFs in a worker thread. */
export type PdfEngine = {
  /** Fulfilled once it is loaded. */
  readonly ready: Promise<unknown>;
  /** @throws ContentError where it is no PDF, or cannot be drawn */
  readonly open: (reader: PlainReader) => Promise<PageSource>;
  /** Refuses what could not be drawn or handed on within bounds later. @throws ContentError */
  readonly check: (reader: PlainReader) => Promise<void>;
  /** The document with remarks on its pages. @throws ContentError where it cannot be rewritten */
  readonly annotate: (reader: PlainReader, notes: readonly Note[]) => Promise<Uint8Array>;
};

/** PDFs, drawn by PDFium. It is loaded at once, so that the first reader does not wait for it. */
export function pdfEngine(compiled: WebAssembly.Module): PdfEngine {
  const pdfium = loadPdfium(compiled);
  return {
    ready: pdfium,
    open: async (reader) => openPdf(await pdfium, reader),
    check: async (reader) => {
      const read = async (offset: number, length: number): Promise<Uint8Array> =>
        Promise.resolve(reader.read(offset, Math.min(length, reader.size - offset)));
      if (await isProtectedFile(read, reader.size)) throw new ContentError('PROTECTED_ALREADY');
      if ((await inflationOf(reader, MOST_UNPACKED)) === 'beyond')
        throw new ContentError('PDF_UNPACKS_TOO_FAR');
    },
    annotate: async (reader, notes) => {
      // Remarks are seldom taken out, and what writes them takes long to load.
      const { annotate } = await import('@/server/rendering/annotate');
      return annotate(reader.read(0, reader.size), notes);
    },
  };
}
