import sharp from 'sharp';
import { burn, pageStamp } from '@/core/watermark/burn';
import type { ShapedLayer } from '@/core/watermark/layout';
import type { MarkedFile } from '@/core/watermark/marked-file';

/** Pixels of all pictures of a file that are held in memory to be marked. */
const MOST_PIXELS = 40_000_000;
const QUALITY = 95;

/** Encodes by the format that the picture came in. */
const ENCODERS = {
  png: (picture: ReturnType<typeof sharp>) => picture.png(),
  jpeg: (picture: ReturnType<typeof sharp>) => picture.removeAlpha().jpeg({ quality: QUALITY }),
  webp: (picture: ReturnType<typeof sharp>) => picture.webp({ quality: QUALITY }),
  tiff: (picture: ReturnType<typeof sharp>) => picture.tiff({ compression: 'lzw' }),
} as const;

function isEncoded(format: string | undefined): format is keyof typeof ENCODERS {
  return format !== undefined && Object.hasOwn(ENCODERS, format);
}

/** One picture of a file, upright, with the watermark burned in. */
async function marked(bytes: Uint8Array, page: number, layers: readonly ShapedLayer[]) {
  const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS, page })
    .rotate()
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: info.width, height: info.height, rgba: data };
  burn(picture, pageStamp(layers, info.width, info.height));
  return picture;
}

/**
 * A picture with the watermark burned in, or each picture of a TIFF that has several of one size, in
 * its own format and upright; what else the file said of it is gone. One that moves, has pictures of
 * different sizes or is too large is handed over as it came.
 */
export async function keepPicture(
  bytes: Uint8Array,
  layers: readonly ShapedLayer[],
): Promise<MarkedFile> {
  if (layers.length === 0) return { bytes, marked: false };
  // What is larger is handed over as it came: looking at its size must not fail.
  const about = sharp(bytes, { limitInputPixels: false });
  const { format, width, height, pages = 1 } = await about.metadata();
  if (!isEncoded(format) || (pages > 1 && format !== 'tiff')) return { bytes, marked: false };
  if (width * height * pages > MOST_PIXELS) return { bytes, marked: false };
  const pictures: Awaited<ReturnType<typeof marked>>[] = [];
  for (let page = 0; page < pages; page++) pictures.push(await marked(bytes, page, layers));
  const [first] = pictures;
  if (first === undefined || pictures.some((each) => !isAlike(each, first)))
    return { bytes, marked: false };
  // Several stand one below the other, cut where each of them ends.
  const raw = {
    width: first.width,
    height: first.height * pages,
    channels: 4 as const,
    ...(pages === 1 ? {} : { pageHeight: first.height }),
  };
  const all = Buffer.concat(pictures.map(({ rgba }) => rgba));
  return { bytes: await ENCODERS[format](sharp(all, { raw })).toBuffer(), marked: true };
}

function isAlike(
  one: { readonly width: number; readonly height: number },
  other: { readonly width: number; readonly height: number },
): boolean {
  return one.width === other.width && one.height === other.height;
}
