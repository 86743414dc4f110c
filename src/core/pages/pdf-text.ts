import { utf8 } from '@/core/base/bytes';
import type { TextBox, TextRun } from '@/core/pages/page-source';
import type { Pdfium } from '@/core/pages/pdfium';

type Native = Pdfium['native'];
type Size = { readonly width: number; readonly height: number };

const MAX_RUNS = 4_000;
/** Places on one page that a search shows. */
const MAX_FOUND = 200;
const MATCH_WHOLE_WORD = 0x02;
const UTF16 = new TextDecoder('utf-16le', { ignoreBOM: true });

function utf16(text: string): Uint8Array {
  const view = new DataView(new ArrayBuffer(text.length * 2));
  for (let i = 0; i < text.length; i++) view.setUint16(i * 2, text.charCodeAt(i), true);
  return new Uint8Array(view.buffer);
}

/** Uses a text as C would have it: in UTF-8, ended by a zero. */
export function withText<T>(native: Native, text: string, use: (pointer: number) => T): T {
  return withBytes(native, utf8(`${text}\0`), use);
}

function withBytes<T>(native: Native, bytes: Uint8Array, use: (pointer: number) => T): T {
  const pointer = native.malloc(bytes.length);
  new Uint8Array(native.memory.buffer).set(bytes, pointer);
  try {
    return use(pointer);
  } finally {
    native.free(pointer);
  }
}

/** Uses the text of a page; `none` where it has none. */
function withTextPage<T>(
  native: Native,
  page: number,
  none: T,
  use: (textPage: number, box: number) => T,
): T {
  const textPage = native.FPDFText_LoadPage(page);
  if (textPage === 0) return none;
  const box = native.malloc(32);
  try {
    return use(textPage, box);
  } finally {
    native.free(box);
    native.FPDFText_ClosePage(textPage);
  }
}

type Rectangle = readonly [left: number, top: number, right: number, bottom: number];

function rectangle(native: Native, textPage: number, box: number, index: number): Rectangle {
  native.FPDFText_GetRect(textPage, index, box, box + 8, box + 16, box + 24);
  const view = new DataView(native.memory.buffer, box, 32);
  return [0, 8, 16, 24].map((at) => view.getFloat64(at, true)) as unknown as Rectangle;
}

function boxOf([left, top, right, bottom]: Rectangle, size: Size): TextBox {
  const share = (value: number, whole: number): number => Math.round((value / whole) * 10_000);
  return {
    left: share(left, size.width),
    top: share(size.height - top, size.height),
    width: share(right - left, size.width),
    height: share(top - bottom, size.height),
  };
}

/** The text of a loaded page, run by run. */
export function textOf(native: Native, page: number, size: Size): readonly TextRun[] {
  return withTextPage<readonly TextRun[]>(native, page, [], (textPage, box) => {
    const runs: TextRun[] = [];
    const count = Math.min(MAX_RUNS, native.FPDFText_CountRects(textPage, 0, -1));
    for (let i = 0; i < count; i++) {
      const found = rectangle(native, textPage, box, i);
      const text = boundedText(native, textPage, found);
      if (text !== '') runs.push({ text, ...boxOf(found, size) });
    }
    return runs;
  });
}

function boundedText(native: Native, textPage: number, box: Rectangle): string {
  const units = native.FPDFText_GetBoundedText(textPage, ...box, 0, 0);
  if (units <= 0) return '';
  const buffer = native.malloc(units * 2 + 2);
  try {
    const written = native.FPDFText_GetBoundedText(textPage, ...box, buffer, units);
    return UTF16.decode(new Uint8Array(native.memory.buffer, buffer, written * 2).slice())
      .replaceAll('\0', '')
      .trimEnd();
  } finally {
    native.free(buffer);
  }
}

/** Where whole words stand on a loaded page, however they are capitalised: the boxes of each place. */
export function findIn(
  native: Native,
  page: number,
  size: Size,
  words: string,
): readonly (readonly TextBox[])[] {
  return withTextPage<readonly (readonly TextBox[])[]>(native, page, [], (textPage, box) =>
    withBytes(native, utf16(`${words}\0`), (pointer) => {
      const search = native.FPDFText_FindStart(textPage, pointer, MATCH_WHOLE_WORD, 0);
      const found: TextBox[][] = [];
      while (found.length < MAX_FOUND && native.FPDFText_FindNext(search) !== 0) {
        const start = native.FPDFText_GetSchResultIndex(search);
        const count = native.FPDFText_CountRects(
          textPage,
          start,
          native.FPDFText_GetSchCount(search),
        );
        found.push(
          Array.from({ length: count }, (_each, i) =>
            boxOf(rectangle(native, textPage, box, i), size),
          ),
        );
      }
      native.FPDFText_FindClose(search);
      return found;
    }),
  );
}
