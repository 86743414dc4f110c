import type { Picture } from '@/core/watermark/burn';
import type { CommentPlace } from '@/core/comments/comment';
import type { View } from '@/core/watermark/layout';

/** Where something stands on a page, in hundredths of a percent of it, from its top left. */
export type TextBox = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};
/** A piece of text on a page and where it stands. */
export type TextRun = TextBox & { readonly text: string };
/** A line of a document's outline; `depth` counts from 0. */
export type OutlineEntry = {
  readonly title: string;
  readonly page: number;
  readonly depth: number;
};

/** One of the squares that a page is cut into where it is looked at in detail, counted from its top left. */
export type PagePart = { readonly column: number; readonly row: number };
/** The side of such a square in px; those at the right and bottom edge are smaller. */
export const PART_SIDE = 1_024;

/** The widest whole page that is drawn; beyond it one looks at parts. */
const WIDEST_PAGE = 2_600;

/** What is drawn of a page: a part of it where one is named, or all of it, within what a whole page may be. */
export function sizeAsked({
  width,
  column,
  row,
}: {
  readonly width: number;
  readonly column?: number | undefined;
  readonly row?: number | undefined;
}): { readonly width: number; readonly part?: PagePart } {
  return column === undefined || row === undefined
    ? { width: Math.min(width, WIDEST_PAGE) }
    : { width, part: { column, row } };
}

/** A part as it was drawn, and where on which page it lies. */
export type PartOfPage = { readonly picture: Picture; readonly view: View };

/** A remark that is written into a copy of a document. */
export type Note = {
  readonly page: number;
  readonly place: CommentPlace;
  readonly by: string;
  readonly text: string;
  readonly madeAt: number;
  readonly isResolved: boolean;
  readonly isAnswer: boolean;
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
  /** Draws a part of a page that would be `width` px wide as a whole. */
  readonly drawPart: (page: number, width: number, part: PagePart) => PartOfPage;
  readonly text: (page: number) => readonly TextRun[];
  /** The places on a page where whole words stand, each as its boxes. */
  readonly find: (page: number, words: string) => readonly (readonly TextBox[])[];
  readonly outline: () => readonly OutlineEntry[];
  readonly close: () => void;
};
