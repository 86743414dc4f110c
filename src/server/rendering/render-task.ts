import type { Office } from '@/server/rendering/office/office-pages';
import type { BlobPlace } from '@/server/storage/blob-store';
import type { MediaType } from '@/core/content/media-types';
import type { Rgb } from '@/core/watermark/burn';
import type { CarriedFor, CarriedRun } from '@/core/watermark/carried-glyphs';
import type { Watermark } from '@/core/watermark/layers';
import type { View } from '@/core/watermark/layout';
import type { Note, OutlineEntry, PagePart, TextBox, TextRun } from '@/core/pages/page-source';
import type { Sheet } from '@/core/pages/picture-pdf';
import type { ContentErrorCode } from '@/core/pages/errors';

/** The channel on which threads are told to let go of every document and key they hold. */
export const FORGET = 'embargo-forget';

/** Where a sealed file lies and what opens it. `key` is the payload key: it never leaves the process. */
export type SealedSource = {
  readonly place: BlobPlace;
  /** Offset in bytes of the first sealed chunk in the file. */
  readonly start: number;
  readonly sealedBytes: number;
  readonly key: Uint8Array;
};

/** A task for a thread, and where it says when it began: its own start is not the task's time. */
export type RenderJob = {
  readonly task: RenderTask;
  /** In ms since the epoch, shared between threads; 0: not begun. */
  readonly begun: BigInt64Array;
};

/** What a thread is told when it starts: whether it draws pages that somebody waits for, and what else makes pages. */
export type ThreadData = {
  readonly pdfium: WebAssembly.Module;
  readonly draws: boolean;
  readonly office: Office | null;
};

/** A page of which size, or only a part of it, where it is looked at in detail. */
export type PageAsked = {
  readonly source: SealedSource;
  readonly page: number;
  readonly width: number;
  readonly part?: PagePart;
};

/** A file of some kind, sealed. */
type SealedFile = { readonly source: SealedSource; readonly mediaType: MediaType };

/**
 * What a worker thread can be asked for. Sources are PDFs but where a kind is named. Pages count from
 * 1, widths are in px.
 */
export type RenderTask =
  | { readonly kind: 'inspect'; readonly source: SealedSource }
  /** The pages that a file is shown by, where it has none itself. */
  | (SealedFile & { readonly kind: 'make' })
  /** A page without anybody's mark. */
  | (PageAsked & { readonly kind: 'draw' })
  | (PageAsked & {
      readonly kind: 'page';
      readonly watermark: Watermark;
      /** With its light and dark changed over, to see how a mark does on the other. */
      readonly isDark?: boolean;
      /** The page without anybody's mark, where it was drawn already. */
      readonly drawn?: Drawn;
    })
  | { readonly kind: 'outline'; readonly source: SealedSource }
  /** Where whole words stand, from a page on, for as long as a search may take at a time. */
  | {
      readonly kind: 'find';
      readonly source: SealedSource;
      readonly words: string;
      readonly from: number;
    }
  | { readonly kind: 'text'; readonly source: SealedSource; readonly page: number }
  /** One page of a print rendition: its picture at the size of paper, or of `width`, watermark burned in. */
  | {
      readonly kind: 'print';
      readonly source: SealedSource;
      readonly page: number;
      readonly watermark: Watermark;
      readonly width?: number;
    }
  /** What a watermark needs of the fonts that ship with the service, where it is `on`. */
  | { readonly kind: 'glyphs'; readonly watermark: Watermark; readonly on: CarriedFor }
  /** The document itself with remarks on its pages. */
  | { readonly kind: 'annotate'; readonly source: SealedSource; readonly notes: readonly Note[] }
  /** The document itself with the watermark drawn on every page, or as it is where the format does not allow that. */
  | (SealedFile & { readonly kind: 'keep'; readonly watermark: Watermark });

export type PagePicture = {
  readonly bytes: Uint8Array;
  readonly type: 'image/png' | 'image/jpeg';
  readonly width: number;
  readonly height: number;
};

export type PrintedPage = PagePicture & Pick<Sheet, 'size'>;

/** A page, or a part of one, without anybody's mark, in memory that all threads share. */
export type Drawn = {
  readonly pixels: SharedArrayBuffer;
  /**
   * The few colours that it has, where each byte of `pixels` says which, row by row with one byte
   * before each that says nothing; else they are red, green, blue, alpha bytes, and it was not looked
   * whether they are few, or there are many.
   */
  readonly colours: readonly Rgb[] | 'unknown' | 'many';
  readonly width: number;
  readonly height: number;
  readonly view: View;
  readonly photographic: boolean;
  /** How large the page is, in points. */
  readonly points: PagePoints;
};

export type PagePoints = { readonly width: number; readonly height: number };

/** Places on one page where words were found. */
export type Found = { readonly page: number; readonly places: readonly (readonly TextBox[])[] };

export type RenderResults = {
  /** `title`: the one that the file states; `text`: the beginning of what it says. */
  readonly inspect: { readonly pages: number; readonly title: string; readonly text: string };
  /** `drawn`: what others can be shown too, where it was drawn for this, or made smaller. */
  readonly page: PagePicture & { readonly points: PagePoints; readonly drawn?: Drawn };
  /** A PDF. */
  readonly make: { readonly bytes: Uint8Array };
  readonly draw: { readonly drawn: Drawn };
  readonly outline: readonly OutlineEntry[];
  /** `next`: the page to go on from; null: the whole document was looked through. */
  readonly find: { readonly found: readonly Found[]; readonly next: number | null };
  readonly text: readonly TextRun[];
  readonly print: PrintedPage;
  readonly glyphs: readonly CarriedRun[];
  readonly annotate: { readonly bytes: Uint8Array };
  /** `marked`: it bears the watermark, and nothing in it acts or leads elsewhere by itself any more. */
  readonly keep: { readonly bytes: Uint8Array; readonly marked: boolean };
};

/** Errors lose their class between threads, so what is wrong with the content travels as a value. */
export type RenderReply<K extends RenderTask['kind'] = RenderTask['kind']> =
  | { readonly ok: true; readonly result: RenderResults[K] }
  | { readonly ok: false; readonly code: ContentErrorCode };
