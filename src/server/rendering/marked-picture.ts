import sharp from 'sharp';
import { burn, type Picture, type Rgb, type Stamp } from '@/core/watermark/burn';
import { burnPalette } from '@/core/watermark/burn-palette';
import type { View } from '@/core/watermark/layout';
import { asPicture, fewColours } from '@/core/watermark/palette';
import { indexesOf, ownRows, palettePng, rowsOf } from '@/server/rendering/png';
import type { Drawn, PagePicture, PagePoints } from '@/server/rendering/render-task';

/** Above this many colours in so many pixels, a page is a photograph and JPEG serves it better. */
const PHOTOGRAPHIC = 300;
const SAMPLE = 2048;

function isPhotographic({ rgba }: Picture): boolean {
  const pixels = new Uint32Array(rgba.buffer, rgba.byteOffset, rgba.length / 4);
  const step = Math.max(1, Math.floor(pixels.length / SAMPLE));
  const colours = new Set<number>();
  for (let i = 0; i < pixels.length; i += step) colours.add(pixels[i] ?? 0);
  return colours.size > PHOTOGRAPHIC;
}

function shared(bytes: Uint8Array): SharedArrayBuffer {
  const memory = new SharedArrayBuffer(bytes.length);
  new Uint8Array(memory).set(bytes);
  return memory;
}

/** A picture without anybody's mark, where all threads can take it from. */
export function asDrawn(picture: Picture, view: View, points: PagePoints): Drawn {
  const { width, height, rgba } = picture;
  const photographic = isPhotographic(picture);
  const colours = photographic ? 'many' : 'unknown';
  return { pixels: shared(rgba), colours, width, height, view, photographic, points };
}

/** The same page by its few colours, where it has few: a quarter of the bytes, marked and encoded faster. */
export function withFewColours(drawn: Drawn): Drawn {
  if (drawn.colours !== 'unknown') return drawn;
  const { width, height, pixels } = drawn;
  const few = fewColours({ width, height, rgba: new Uint8Array(pixels) });
  if (few === null) return { ...drawn, colours: 'many' };
  return { ...drawn, pixels: shared(rowsOf(few, few.indexes)), colours: few.colours };
}

/** Light becomes dark and dark light. */
function changeOver({ rgba }: Picture): void {
  for (let at = 0; at < rgba.length; at += 4)
    for (let i = at; i < at + 3; i++) rgba[i] = 255 - (rgba[i] ?? 0);
}

function pictureOf({ pixels, colours, width, height }: Drawn): Picture {
  const bytes = new Uint8Array(pixels);
  return typeof colours === 'string'
    ? { width, height, rgba: bytes.slice() }
    : asPicture({ width, height, indexes: indexesOf({ width, height }, bytes), colours });
}

function withPalette(
  { pixels, width, height }: Drawn,
  colours: readonly Rgb[],
  stamp: Stamp,
): PagePicture | null {
  // Burned where it is compressed from: the column before each row is told that it is there.
  const rows = ownRows(new Uint8Array(pixels));
  const { crop, inked } = stamp;
  const shifted = { crop: { ...crop, left: crop.left - 1 }, inked };
  const marked = burnPalette({ width: width + 1, height, indexes: rows, colours }, shifted);
  if (marked === null) return null;
  const bytes = palettePng({ width, height, colours: marked.colours }, rows);
  return { bytes, type: 'image/png', width, height };
}

/** A picture as JPEG, for photographs and for paper. */
export async function asJpeg({ width, height, rgba }: Picture): Promise<PagePicture> {
  const raw = sharp(rgba, { raw: { width, height, channels: 4 } });
  const bytes = await raw.removeAlpha().jpeg({ quality: 85 }).toBuffer();
  return { bytes, type: 'image/jpeg', width, height };
}

async function asPng({ width, height, rgba }: Picture): Promise<PagePicture> {
  const raw = sharp(rgba, { raw: { width, height, channels: 4 } });
  const bytes = await raw.png({ compressionLevel: 1 }).toBuffer();
  return { bytes, type: 'image/png', width, height };
}

/**
 * A page with a stamp burned in, encoded as suits it.
 *
 * @param isDark with its light and dark changed over
 * @param own a picture of it that may be changed; else one is made
 */
export async function markedPicture(
  drawn: Drawn,
  stamp: Stamp,
  isDark = false,
  own: Picture | null = null,
): Promise<PagePicture> {
  const { colours, photographic } = drawn;
  const small = isDark || typeof colours === 'string' ? null : withPalette(drawn, colours, stamp);
  if (small !== null) return small;
  const picture = own ?? pictureOf(drawn);
  if (isDark) changeOver(picture);
  burn(picture, stamp);
  return photographic ? asJpeg(picture) : asPng(picture);
}
