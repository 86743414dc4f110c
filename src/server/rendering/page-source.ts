import type { PlainReader } from '@/core/age/random-access';
import type { Picture } from '@/core/watermark/burn';

/** A piece of text on a page and where it stands, in hundredths of a percent of the page, from its top left. */
export type TextRun = {
  readonly text: string;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};

/** A document as pages that can be drawn, whatever kind of file it is. Pages count from 1. */
export type PageSource = {
  readonly pages: number;
  /** The title that the file states itself; empty: none. */
  readonly title: string;
  /** Width and height of a page in points. */
  readonly pageSize: (page: number) => { readonly width: number; readonly height: number };
  /** Draws a page so that it is `width` px wide, within what the source can draw. */
  readonly draw: (page: number, width: number) => Picture;
  readonly text: (page: number) => readonly TextRun[];
  readonly close: () => void;
};

/** What handles the documents of one kind of file in a worker thread. */
export type PageEngine = {
  /** @throws ContentError where it is no document of this kind, or cannot be drawn */
  readonly open: (reader: PlainReader) => Promise<PageSource>;
  /** Refuses what could not be drawn or handed on within bounds later. @throws ContentError */
  readonly check: (reader: PlainReader) => Promise<void>;
  /** The document with the watermark on every page; `marked` is false where the format does not allow that. */
  readonly keep: (
    reader: PlainReader,
    watermark: string,
  ) => Promise<{ readonly bytes: Uint8Array; readonly marked: boolean }>;
};
