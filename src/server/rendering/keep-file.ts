import type { PlainReader } from '@/core/age/random-access';
import type { MediaType } from '@/core/content/media-types';
import type { Watermark } from '@/core/watermark/layers';
import type { ShapedLayer } from '@/core/watermark/layout';
import { layersInFile, type MarkedFile } from '@/core/watermark/marked-file';
import { keepDrawing } from '@/server/rendering/keep-drawing';
import { keepMarked } from '@/server/rendering/keep-marked';
import { keepPicture } from '@/server/rendering/keep-picture';
import type { Marker } from '@/core/watermark/marker';

type Keeper = (bytes: Uint8Array, layers: readonly ShapedLayer[]) => Promise<MarkedFile>;

/** How a watermark gets into a file of each kind; `null`: it has no place for one. */
const KEEPERS: Readonly<Record<MediaType, Keeper | null>> = {
  'application/pdf': keepMarked,
  'image/png': keepPicture,
  'image/jpeg': keepPicture,
  'image/tiff': keepPicture,
  'image/webp': keepPicture,
  'image/svg+xml': keepDrawing,
  'text/plain': null,
  'text/markdown': null,
  'text/csv': null,
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': null,
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': null,
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': null,
  'application/octet-stream': null,
};

/** A file in the clear with the watermark in it, which has no number. */
export async function keepFile(
  mediaType: MediaType,
  reader: PlainReader,
  watermark: Watermark,
  { shaped }: Pick<Marker, 'shaped'>,
): Promise<MarkedFile> {
  const bytes = reader.read(0, reader.size);
  const keep = KEEPERS[mediaType];
  if (keep === null) return { bytes, marked: false };
  return keep(bytes, await shaped(layersInFile(watermark, mediaType)));
}
