import type { OutlineEntry } from '@/core/pages/page-source';
import type { Pdfium } from '@/core/pages/pdfium';

type Native = Pdfium['native'];

/** Entries that are taken from an outline, and how deep: one that leads to itself has no end. */
const MOST_ENTRIES = 2_000;
const DEEPEST = 8;
const TITLE_BYTES = 512;

function titleOf(native: Native, bookmark: number, buffer: number): string {
  const length = Math.min(native.FPDFBookmark_GetTitle(bookmark, buffer, TITLE_BYTES), TITLE_BYTES);
  if (length < 4) return '';
  const bytes = new Uint8Array(native.memory.buffer, buffer, length - 2).slice();
  return new TextDecoder('utf-16le').decode(bytes).replaceAll('\0', '').trim();
}

function pageOf(native: Native, document: number, bookmark: number): number | null {
  const own = native.FPDFBookmark_GetDest(document, bookmark);
  const action = own === 0 ? native.FPDFBookmark_GetAction(bookmark) : 0;
  const target = action === 0 ? own : native.FPDFAction_GetDest(document, action);
  const index = target === 0 ? -1 : native.FPDFDest_GetDestPageIndex(document, target);
  return index < 0 ? null : index + 1;
}

/** The outline that a document brings (ISO 32000-2, 12.3.3), in reading order. */
export function outlineEntries(native: Native, document: number): readonly OutlineEntry[] {
  const entries: OutlineEntry[] = [];
  const seen = new Set<number>();
  const buffer = native.malloc(TITLE_BYTES);
  const walk = (parent: number, depth: number): void => {
    let bookmark = native.FPDFBookmark_GetFirstChild(document, parent);
    while (bookmark !== 0 && entries.length < MOST_ENTRIES && !seen.has(bookmark)) {
      seen.add(bookmark);
      const title = titleOf(native, bookmark, buffer);
      const page = pageOf(native, document, bookmark);
      if (title !== '' && page !== null) entries.push({ title, page, depth });
      if (depth < DEEPEST) walk(bookmark, depth + 1);
      bookmark = native.FPDFBookmark_GetNextSibling(document, bookmark);
    }
  };
  try {
    walk(0, 0);
    return entries;
  } finally {
    native.free(buffer);
  }
}
