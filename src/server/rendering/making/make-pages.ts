import { decodeText } from '@/core/content/decode-text';
import type { MediaType } from '@/core/content/media-types';
import { isOfficeKind, officePages, type Office } from '@/server/rendering/office/office-pages';
import { ContentError } from '@/core/pages/errors';

/** Most bytes of a file that pages are made of: all of it is in memory meanwhile. */
const MOST_BYTES = 96 << 20;
/** Letters of a text that are laid out: some 5,000 pages. */
const MOST_LETTERS = 16_000_000;

function needText(bytes: Uint8Array): string {
  const text = decodeText(bytes);
  if (text.length > MOST_LETTERS) throw new ContentError('FILE_TOO_LONG');
  return text;
}

type Maker = (bytes: Uint8Array) => Promise<Uint8Array>;

// What each kind takes is loaded where a file of that kind comes: most threads draw PDFs all day.

const pictures: Maker = async (bytes) => {
  const { picturePages } = await import('@/server/rendering/making/picture-pages');
  return picturePages(bytes);
};

const text: Maker = async (bytes) => {
  const { flowPages } = await import('@/server/rendering/making/flow-pages');
  const { textBlocks } = await import('@/server/rendering/making/text-blocks');
  return flowPages(textBlocks(needText(bytes)));
};

const markdown: Maker = async (bytes) => {
  const { flowPages } = await import('@/server/rendering/making/flow-pages');
  const { markdownBlocks } = await import('@/server/rendering/making/markdown-blocks');
  return flowPages(await markdownBlocks(needText(bytes)));
};

const word: Maker = async (bytes) => {
  const { flowPages } = await import('@/server/rendering/making/flow-pages');
  const { wordBlocks } = await import('@/server/rendering/making/word-blocks');
  return flowPages(await wordBlocks(bytes));
};

const csv: Maker = async (bytes) => {
  const { csvSheet } = await import('@/server/rendering/making/csv-sheet');
  const { sheetPages } = await import('@/server/rendering/making/sheet-pages');
  return sheetPages([csvSheet(needText(bytes))]);
};

const excel: Maker = async (bytes) => {
  const { excelSheets } = await import('@/server/rendering/making/excel-sheets');
  const { sheetPages } = await import('@/server/rendering/making/sheet-pages');
  return sheetPages(await excelSheets(bytes));
};

const powerPoint: Maker = async (bytes) => {
  const { readSlides } = await import('@/server/rendering/making/slides');
  const { slidePages } = await import('@/server/rendering/making/slide-pages');
  return slidePages(await readSlides(bytes));
};

/** How pages are made of each kind of file; `null`: it has them itself, or has none. */
const MAKERS: Readonly<Record<MediaType, Maker | null>> = {
  'application/pdf': null,
  'image/png': pictures,
  'image/jpeg': pictures,
  'image/tiff': pictures,
  'image/webp': pictures,
  'image/svg+xml': pictures,
  'text/plain': text,
  'text/markdown': markdown,
  'text/csv': csv,
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': word,
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': excel,
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': powerPoint,
  'application/octet-stream': null,
};

/** Null where nothing came of it: what is built in tries as well, and says what is wrong with the file. */
async function byOffice(
  office: Office,
  mediaType: MediaType,
  bytes: Uint8Array,
): Promise<Uint8Array | null> {
  try {
    return await officePages(office, mediaType, bytes);
  } catch {
    return null;
  }
}

/**
 * The pages that a file is shown by, as a PDF. @param office makes those of some kinds; null: nothing
 *
 * @throws ContentError where it is damaged, or more than can be shown
 */
export async function makePages(
  mediaType: MediaType,
  bytes: Uint8Array,
  office: Office | null = null,
): Promise<Uint8Array> {
  const make = MAKERS[mediaType];
  if (make === null) throw new ContentError('NO_SUCH_PAGE');
  if (bytes.length > MOST_BYTES) throw new ContentError('FILE_TOO_LONG');
  if (office !== null && isOfficeKind(mediaType)) {
    const pages = await byOffice(office, mediaType, bytes);
    if (pages !== null) return pages;
  }
  try {
    return await make(bytes);
  } catch (cause) {
    if (cause instanceof ContentError) throw cause;
    // What reads files of other programs gives up in ways of its own.
    const isTooMuch = cause instanceof RangeError && /length|memory|size/i.test(cause.message);
    throw new ContentError(isTooMuch ? 'FILE_TOO_DEMANDING' : 'FILE_DAMAGED', { cause });
  }
}
