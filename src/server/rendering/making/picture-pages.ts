import sharp from 'sharp';
import { ContentError } from '@/core/pages/errors';
import { picturesToPdf } from '@/core/pages/picture-pdf';
import type { PrintedPage } from '@/server/rendering/render-task';

/** Pixels of one picture that are unpacked, and that a page of it has: beyond them it is shown smaller. */
const MOST_PIXELS = 200_000_000;
const MOST_SHOWN = 40_000_000;
const MOST_PICTURES = 500;
/** The longest side of a page in points: A0. */
const LONGEST = 3_370;
const POINTS_PER_INCH = 72;
/** Dots an inch where a picture does not say them. */
const USUAL_DENSITY = 150;
/** Pixels along the longer side of a drawing that has none of its own. */
const DRAWN_SIDE = 4_000;

type Metadata = Awaited<ReturnType<ReturnType<typeof sharp>['metadata']>>;

async function metadataOf(bytes: Uint8Array): Promise<Metadata> {
  return sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch((cause: unknown) => {
      throw new ContentError('FILE_DAMAGED', { cause });
    });
}

/** How large a page is on paper: by what the picture says, within what paper there is. */
function sizeOf(width: number, height: number, density: number | undefined): PrintedPage['size'] {
  const stated = density !== undefined && density > POINTS_PER_INCH ? density : USUAL_DENSITY;
  const scale = Math.min(POINTS_PER_INCH / stated, LONGEST / Math.max(width, height));
  return { width: width * scale, height: height * scale };
}

/** Dots an inch at which a drawing is as many pixels across as it is shown with. */
function densityOf({ width, height }: Metadata): number {
  return Math.min(2_400, Math.max(1, (POINTS_PER_INCH * DRAWN_SIDE) / Math.max(width, height)));
}

async function pageOf(bytes: Uint8Array, page: number, about: Metadata): Promise<PrintedPage> {
  const isDrawing = about.format === 'svg';
  const source = sharp(bytes, {
    page,
    limitInputPixels: MOST_PIXELS,
    ...(isDrawing ? { density: densityOf(about) } : {}),
  });
  const { width, height } = await source.metadata();
  const shrink = Math.sqrt(Math.min(1, MOST_SHOWN / (width * height)));
  // The longer side bounds both: turned upright, width and height change places.
  const side = Math.floor(Math.max(width, height) * shrink);
  const upright = source
    .rotate()
    .flatten({ background: '#ffffff' })
    .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb');
  const { data, info } = await upright
    .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
    .toBuffer({ resolveWithObject: true });
  const density = isDrawing ? densityOf(about) : about.density;
  const size = sizeOf(info.width, info.height, density === undefined ? density : density * shrink);
  return { bytes: data, type: 'image/jpeg', width: info.width, height: info.height, size };
}

async function* pagesOf(
  bytes: Uint8Array,
  about: Metadata,
  pages: number,
): AsyncGenerator<PrintedPage> {
  for (let page = 0; page < pages; page++)
    yield await pageOf(bytes, page, about).catch((cause: unknown) => {
      throw new ContentError('FILE_DAMAGED', { cause });
    });
}

/**
 * Pictures as the pages of a PDF, upright and on white. Of one that moves, the first is shown. What
 * a drawing names elsewhere is not fetched, and nothing in it is run.
 *
 * @throws ContentError `FILE_DAMAGED`, `PICTURE_TOO_LARGE`, `FILE_TOO_LONG`
 */
export async function picturePages(bytes: Uint8Array): Promise<Uint8Array> {
  const about = await metadataOf(bytes);
  if (about.format !== 'svg' && about.width * about.height > MOST_PIXELS)
    throw new ContentError('PICTURE_TOO_LARGE');
  const pages = about.format === 'tiff' ? (about.pages ?? 1) : 1;
  if (pages > MOST_PICTURES) throw new ContentError('FILE_TOO_LONG');
  const pieces: Uint8Array[] = [];
  for await (const piece of picturesToPdf('', pagesOf(bytes, about, pages))) pieces.push(piece);
  return Buffer.concat(pieces);
}
