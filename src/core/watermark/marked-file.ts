import type { MediaType } from '@/core/content/media-types';
import { fillLayers, type Watermark } from '@/core/watermark/layers';

/** A file in the clear; `marked` is false where its format does not allow that, and it is as it was. */
export type MarkedFile = { readonly bytes: Uint8Array; readonly marked: boolean };

/** Larger files are handed over as they are, in bytes: marking them takes several times their size of memory. */
export const MAX_MARKED = 96 * 1024 * 1024;

/**
 * The layers that a file in the clear bears. It is read and printed at will: it has what is for either,
 * but for strips beside the page. A picture is one page, and says so.
 */
export function layersInFile(watermark: Watermark, mediaType: MediaType): Watermark {
  const onPages = watermark.filter(({ place }) => place !== 'banner');
  return mediaType === 'application/pdf' ? onPages : fillLayers(onPages, () => ({ page: '1' }));
}
