import sharp from 'sharp';
import { burn, pageStamp } from '@/core/watermark/burn';
import type { ShapedLayer } from '@/core/watermark/layout';
import type { KeptFile } from '@/server/rendering/keep-file';

/** Pixels of a picture that are held in memory to be marked. */
const MOST_PIXELS = 40_000_000;
const QUALITY = 95;

/** Encodes by the format that the picture came in; those of several pictures are not written anew. */
const ENCODERS = {
  png: (picture: ReturnType<typeof sharp>) => picture.png(),
  jpeg: (picture: ReturnType<typeof sharp>) => picture.removeAlpha().jpeg({ quality: QUALITY }),
  webp: (picture: ReturnType<typeof sharp>) => picture.webp({ quality: QUALITY }),
  tiff: (picture: ReturnType<typeof sharp>) => picture.tiff({ compression: 'lzw' }),
} as const;

function isEncoded(format: string | undefined): format is keyof typeof ENCODERS {
  return format !== undefined && Object.hasOwn(ENCODERS, format);
}

/** A picture with the watermark burned in, in its own format and upright; what else the file said of it is gone. */
export async function keepPicture(
  bytes: Uint8Array,
  layers: readonly ShapedLayer[],
): Promise<KeptFile> {
  if (layers.length === 0) return { bytes, marked: false };
  // What is larger is handed over as it came: looking at its size must not fail.
  const about = sharp(bytes, { limitInputPixels: false });
  const { format, width, height, pages = 1 } = await about.metadata();
  if (!isEncoded(format) || pages > 1 || width * height > MOST_PIXELS)
    return { bytes, marked: false };
  const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS })
    .rotate()
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: info.width, height: info.height, rgba: data };
  burn(picture, pageStamp(layers, info.width, info.height));
  const raw = { width: info.width, height: info.height, channels: 4 as const };
  const encoded = await ENCODERS[format](sharp(data, { raw })).toBuffer();
  return { bytes: encoded, marked: true };
}
