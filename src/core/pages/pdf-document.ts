import type { PlainReader } from '@/core/age/random-access';
import type { Picture } from '@/core/watermark/burn';
import { wholePage, type View } from '@/core/watermark/layout';
import { ContentError } from '@/core/pages/errors';
import { onePage } from '@/core/pages/one-page';
import { outlineEntries } from '@/core/pages/pdf-outline';
import { findIn, textOf, withText } from '@/core/pages/pdf-text';
import { PART_SIDE, type PagePart, type PageSource } from '@/core/pages/page-source';
import type { Pdfium } from '@/core/pages/pdfium';

/** Most pixels a page is ever drawn with: a page a kilometre wide is drawn small. */
const MAX_PIXELS = 12_000_000;
const MAX_SIDE = 8_000;
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
    draw: (page, width) =>
      withPage(page, (loaded, size) => {
        const view = wholePage(...pixelSize(size, width));
        return drawView(native, loaded, view);
      }),
    drawPart: (page, width, part) =>
      withPage(page, (loaded, size) => {
        const view = partView(size, width, part);
        return { view, picture: drawView(native, loaded, view) };
      }),
    text: (page) => withPage(page, (loaded, size) => textOf(native, loaded, size)),
    find: (page, words) => withPage(page, (loaded, size) => findIn(native, loaded, size, words)),
    outline: () => outlineEntries(native, handle),
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

function pixelSize(size: { width: number; height: number }, wanted: number): [number, number] {
  const ratio = size.height / size.width;
  const width = Math.min(wanted, Math.sqrt(MAX_PIXELS / ratio), MAX_SIDE, MAX_SIDE / ratio);
  return [Math.max(1, Math.floor(width)), Math.max(1, Math.floor(width * ratio))];
}

/** The widest a page is ever taken to be where only parts of it are drawn. */
const WIDEST = 20_000;

/** Where a part lies on a page that would be `wanted` px wide as a whole. @throws ContentError `NO_SUCH_PAGE` */
function partView(
  size: { width: number; height: number },
  wanted: number,
  { column, row }: PagePart,
): View {
  const ratio = size.height / size.width;
  const width = Math.floor(Math.min(wanted, WIDEST, WIDEST / ratio));
  const height = Math.max(1, Math.floor(width * ratio));
  const [left, top] = [column * PART_SIDE, row * PART_SIDE];
  if (left >= width || top >= height) throw new ContentError('NO_SUCH_PAGE');
  const crop = {
    left,
    top,
    width: Math.min(PART_SIDE, width - left),
    height: Math.min(PART_SIDE, height - top),
  };
  return { width, height, crop };
}

function drawView(native: Pdfium['native'], page: number, view: View): Picture {
  const { width, height, left, top } = { ...view.crop };
  const length = width * height * 4;
  const pixels = native.malloc(length);
  if (pixels === 0) throw new ContentError('PDF_TOO_DEMANDING');
  try {
    const bitmap = native.FPDFBitmap_CreateEx(width, height, FORMAT_BGRA, pixels, width * 4);
    native.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, WHITE);
    native.FPDF_RenderPageBitmap(
      bitmap,
      page,
      -left,
      -top,
      view.width,
      view.height,
      0,
      DRAW_ANNOTATIONS | DRAW_REVERSED,
    );
    native.FPDFBitmap_Destroy(bitmap);
    return { width, height, rgba: new Uint8Array(native.memory.buffer, pixels, length).slice() };
  } finally {
    native.free(pixels);
  }
}
