import type { PlainReader } from '@/core/age/random-access';
import type { Picture } from '@/core/watermark/burn';
import { ContentError } from '@/server/rendering/errors';
import { onePage } from '@/server/rendering/one-page';
import type { PageSource, TextRun } from '@/server/rendering/page-source';
import type { Pdfium } from '@/server/rendering/pdfium';

/** Most pixels a page is ever drawn with: a page a kilometre wide is drawn small. */
const MAX_PIXELS = 12_000_000;
const MAX_SIDE = 8_000;
const MAX_RUNS = 4_000;
const FORMAT_BGRA = 4;
const DRAW_ANNOTATIONS = 0x01;
const DRAW_REVERSED = 0x10; // red first: the byte order of RGBA
const WHITE = 0xffffffff;

/** So many pages further on, it is cheaper to find a page here than to have PDFium walk there. */
const FAR = 24;

const FPDF_ERR_PASSWORD = 4;
const FPDF_ERR_SECURITY = 5;

/** Opens a PDF through a reader. @throws ContentError `EMPTY_FILE`, `PDF_LOCKED`, `PDF_DAMAGED` */
export function openPdf(pdfium: Pdfium, reader: PlainReader): PageSource {
  const { native, mount } = pdfium;
  if (reader.size === 0) throw new ContentError('EMPTY_FILE');
  const { path, unmount } = mount(reader);
  const handle = withText(native, path, (pointer) => native.FPDF_LoadDocument(pointer, 0));
  if (handle === 0) {
    const error = native.FPDF_GetLastError();
    unmount();
    throw new ContentError(
      error === FPDF_ERR_PASSWORD || error === FPDF_ERR_SECURITY ? 'PDF_LOCKED' : 'PDF_DAMAGED',
    );
  }
  const pages = native.FPDF_GetPageCount(handle);
  const close = (): void => {
    native.FPDF_CloseDocument(handle);
    unmount();
  };
  if (pages < 1) {
    close();
    throw new ContentError('PDF_DAMAGED');
  }

  let walked = 0;
  const withPage = <T>(page: number, use: UsePage<T>): T => {
    if (!Number.isInteger(page) || page < 1 || page > pages) throw new ContentError('NO_SUCH_PAGE');
    const alone = page - walked > FAR ? onePage(reader, page - 1) : null;
    if (alone !== null)
      return onOtherFile(pdfium, alone, use) ?? withLoaded(native, handle, page, use);
    walked = Math.max(walked, page);
    return withLoaded(native, handle, page, use);
  };

  return {
    pages,
    title: titleOf(native, handle),
    close,
    pageSize: (page) => withPage(page, (_handle, size) => size),
    draw: (page, width) => withPage(page, (loaded, size) => drawPage(native, loaded, size, width)),
    text: (page) => withPage(page, (loaded, size) => textOf(native, loaded, size)),
  };
}

/** Most bytes of a stated title that are read. */
const TITLE_BYTES = 1_024;

/** The title in a document's information dictionary (ISO 32000-2, 14.3.3). */
function titleOf(native: Pdfium['native'], handle: number): string {
  const buffer = native.malloc(TITLE_BYTES);
  try {
    const length = withText(native, 'Title', (tag) =>
      native.FPDF_GetMetaText(handle, tag, buffer, TITLE_BYTES),
    );
    if (length < 4 || length > TITLE_BYTES) return '';
    // UTF-16, with the zero that ends it.
    const bytes = new Uint8Array(native.memory.buffer, buffer, length - 2).slice();
    return new TextDecoder('utf-16le').decode(bytes).trim();
  } finally {
    native.free(buffer);
  }
}

type UsePage<T> = (handle: number, size: { width: number; height: number }) => T;

function withLoaded<T>(native: Pdfium['native'], handle: number, page: number, use: UsePage<T>): T {
  const loaded = native.FPDF_LoadPage(handle, page - 1);
  if (loaded === 0) throw new ContentError('PDF_DAMAGED');
  try {
    const size = {
      width: native.FPDF_GetPageWidthF(loaded),
      height: native.FPDF_GetPageHeightF(loaded),
    };
    if (!(size.width > 0 && size.height > 0)) throw new ContentError('PDF_DAMAGED');
    return use(loaded, size);
  } finally {
    native.FPDF_ClosePage(loaded);
  }
}

/** Uses the only page of another file; `null` where PDFium does not find just that in it. */
function onOtherFile<T>({ native, mount }: Pdfium, reader: PlainReader, use: UsePage<T>): T | null {
  const { path, unmount } = mount(reader);
  const handle = withText(native, path, (pointer) => native.FPDF_LoadDocument(pointer, 0));
  try {
    if (handle === 0 || native.FPDF_GetPageCount(handle) !== 1) return null;
    return withLoaded(native, handle, 1, use);
  } finally {
    if (handle !== 0) native.FPDF_CloseDocument(handle);
    unmount();
  }
}

function withText<T>(native: Pdfium['native'], text: string, use: (pointer: number) => T): T {
  const bytes = Buffer.from(`${text}\0`);
  const pointer = native.malloc(bytes.length);
  new Uint8Array(native.memory.buffer).set(bytes, pointer);
  try {
    return use(pointer);
  } finally {
    native.free(pointer);
  }
}

function pixelSize(
  size: { width: number; height: number },
  wanted: number,
): { width: number; height: number } {
  const ratio = size.height / size.width;
  const width = Math.min(wanted, Math.sqrt(MAX_PIXELS / ratio), MAX_SIDE, MAX_SIDE / ratio);
  return { width: Math.max(1, Math.floor(width)), height: Math.max(1, Math.floor(width * ratio)) };
}

function drawPage(
  native: Pdfium['native'],
  page: number,
  size: { width: number; height: number },
  wanted: number,
): Picture {
  const { width, height } = pixelSize(size, wanted);
  const length = width * height * 4;
  const pixels = native.malloc(length);
  if (pixels === 0) throw new ContentError('PDF_TOO_DEMANDING');
  try {
    const bitmap = native.FPDFBitmap_CreateEx(width, height, FORMAT_BGRA, pixels, width * 4);
    native.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, WHITE);
    native.FPDF_RenderPageBitmap(
      bitmap,
      page,
      0,
      0,
      width,
      height,
      0,
      DRAW_ANNOTATIONS | DRAW_REVERSED,
    );
    native.FPDFBitmap_Destroy(bitmap);
    return { width, height, rgba: new Uint8Array(native.memory.buffer, pixels, length).slice() };
  } finally {
    native.free(pixels);
  }
}

function textOf(
  native: Pdfium['native'],
  page: number,
  size: { width: number; height: number },
): TextRun[] {
  const textPage = native.FPDFText_LoadPage(page);
  if (textPage === 0) return [];
  const box = native.malloc(32);
  try {
    const runs: TextRun[] = [];
    const count = Math.min(MAX_RUNS, native.FPDFText_CountRects(textPage, 0, -1));
    for (let i = 0; i < count; i++) {
      native.FPDFText_GetRect(textPage, i, box, box + 8, box + 16, box + 24);
      const view = new DataView(native.memory.buffer, box, 32);
      const [left, top, right, bottom] = [0, 8, 16, 24].map((at) => view.getFloat64(at, true)) as [
        number,
        number,
        number,
        number,
      ];
      const text = boundedText(native, textPage, left, top, right, bottom);
      if (text === '') continue;
      const share = (value: number, whole: number): number => Math.round((value / whole) * 10_000);
      runs.push({
        text,
        left: share(left, size.width),
        top: share(size.height - top, size.height),
        width: share(right - left, size.width),
        height: share(top - bottom, size.height),
      });
    }
    return runs;
  } finally {
    native.free(box);
    native.FPDFText_ClosePage(textPage);
  }
}

function boundedText(
  native: Pdfium['native'],
  textPage: number,
  ...box: [number, number, number, number]
): string {
  const units = native.FPDFText_GetBoundedText(textPage, ...box, 0, 0);
  if (units <= 0) return '';
  const buffer = native.malloc(units * 2 + 2);
  try {
    const written = native.FPDFText_GetBoundedText(textPage, ...box, buffer, units);
    return Buffer.from(new Uint8Array(native.memory.buffer, buffer, written * 2))
      .toString('utf16le')
      .replaceAll('\0', '')
      .trimEnd();
  } finally {
    native.free(buffer);
  }
}
