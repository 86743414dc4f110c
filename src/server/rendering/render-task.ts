import type { BlobPlace } from '@/server/storage/blob-store';
import type { MediaType } from '@/core/content/media-types';
import type { TextRun } from '@/server/rendering/page-source';
import type { ContentErrorCode } from '@/server/rendering/errors';

/** The channel on which threads are told to let go of every document and key they hold. */
export const FORGET = 'embargo-forget';

/** Where a version's content lies and what opens it. `key` is the payload key: it never leaves the process. */
export type SealedSource = {
  readonly mediaType: MediaType;
  readonly place: BlobPlace;
  /** Offset in bytes of the first sealed chunk in the file. */
  readonly start: number;
  readonly sealedBytes: number;
  readonly key: Uint8Array;
};

/** What a worker thread can be asked for. Pages count from 1, widths are in px. */
export type RenderTask =
  | { readonly kind: 'inspect'; readonly source: SealedSource }
  | {
      readonly kind: 'page';
      readonly source: SealedSource;
      readonly page: number;
      readonly width: number;
      readonly watermark: string;
    }
  | { readonly kind: 'text'; readonly source: SealedSource; readonly page: number }
  /** One page of a print rendition: its picture at the size of paper, watermark burned in. */
  | {
      readonly kind: 'print';
      readonly source: SealedSource;
      readonly page: number;
      readonly watermark: string;
    }
  /** The document itself with the watermark drawn on every page, or as it is where the format does not allow that. */
  | { readonly kind: 'keep'; readonly source: SealedSource; readonly watermark: string };

export type PagePicture = {
  readonly bytes: Uint8Array;
  readonly type: 'image/png' | 'image/jpeg';
  readonly width: number;
  readonly height: number;
};

/** A picture as JPEG, and the size in points that its page has on paper. */
export type PrintedPage = PagePicture & {
  readonly size: { readonly width: number; readonly height: number };
};

export type RenderResults = {
  /** `title`: the one that the file states; `text`: the beginning of what it says. */
  readonly inspect: { readonly pages: number; readonly title: string; readonly text: string };
  readonly page: PagePicture;
  readonly text: readonly TextRun[];
  readonly print: PrintedPage;
  /** `marked`: it bears the watermark, and nothing in it acts or leads elsewhere by itself any more. */
  readonly keep: { readonly bytes: Uint8Array; readonly marked: boolean };
};

/** Errors lose their class between threads, so what is wrong with the content travels as a value. */
export type RenderReply<K extends RenderTask['kind'] = RenderTask['kind']> =
  | { readonly ok: true; readonly result: RenderResults[K] }
  | { readonly ok: false; readonly code: ContentErrorCode };
