'use client';

import { createContext, useContext } from 'react';
import type { FoundPage, OutlineLine, TextPiece } from '@/contracts/reader';

/** A picture of a page, or of a part of one, and how large the page is in points. */
export type LoadedPicture = {
  /** An object address; whoever asked revokes it. */
  readonly url: string;
  readonly points: PageSize;
};
export type PageSize = { readonly width: number; readonly height: number };
/** For what the text of pages may reach this browser. */
export type TextFor = 'nothing' | 'aids' | 'copying';
/** One of the squares that a page is cut into, of a page `width` px wide. */
export type WantedPicture = {
  readonly page: number;
  readonly width: number;
  readonly column?: number;
  readonly row?: number;
};

/** Where the reader has its pages from: an open, or a check by staff. */
export type PageSource = {
  /** @throws RefusedError, CallError */
  readonly picture: (wanted: WantedPicture, signal: AbortSignal) => Promise<LoadedPicture>;
  readonly text: (page: number, signal: AbortSignal) => Promise<readonly TextPiece[]>;
  readonly outline: () => Promise<readonly OutlineLine[]>;
  readonly find: (
    words: string,
    from: number,
    signal: AbortSignal,
  ) => Promise<{ readonly found: readonly FoundPage[]; readonly next: number | null }>;
  /** How often what was in view is told, in seconds; absent: every 15. */
  readonly tellsEvery?: number;
  readonly noteCopied: (page: number, characters: number) => Promise<void>;
  readonly noteReading: (
    pages: readonly { readonly page: number; readonly shown: number }[],
  ) => Promise<void>;
};

const Source = createContext<PageSource | null>(null);
export const PageSourceProvider = Source.Provider;

/** What the pages around here are loaded from. */
export function usePageSource(): PageSource {
  const source = useContext(Source);
  if (source === null) throw new Error('No source of pages is given here.');
  return source;
}

/** The size in points that came with a picture (`width height`). */
function sizeOf(response: Response): PageSize {
  const [width = 0, height = 0] = (response.headers.get('x-page-points') ?? '')
    .split(' ')
    .map(Number);
  return width > 0 && height > 0 ? { width, height } : { width: 595, height: 842 };
}

/** The address of a picture, below that of its pages. */
export function picturePath({ page, width, column, row }: WantedPicture): string {
  const part =
    column === undefined || row === undefined ? '' : `&column=${String(column)}&row=${String(row)}`;
  return `/pages/${String(page)}?width=${String(width)}${part}`;
}

/** A picture that was answered with. */
export async function pictureOf(response: Response): Promise<LoadedPicture> {
  return { url: URL.createObjectURL(await response.blob()), points: sizeOf(response) };
}
