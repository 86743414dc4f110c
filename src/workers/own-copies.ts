// Copies of a document that is open in the browser: on paper, and in the clear.
import type { PlainReader } from '@/core/age/random-access';
import type { MediaType } from '@/core/content/media-types';
import type { Permit } from '@/core/licence/permit';
import { OwnMachineError } from '@/core/own-machine/errors';
import type { OwnDocument } from '@/core/own-machine/own-document';
import { picturesToPdf, type Sheet } from '@/core/pages/picture-pdf';
import { burn, pageStamp, type Picture } from '@/core/watermark/burn';
import type { Watermark } from '@/core/watermark/layers';
import type { ShapedLayer } from '@/core/watermark/layout';
import { markPdf } from '@/core/watermark/mark-pdf';
import { layersInFile, MAX_MARKED } from '@/core/watermark/marked-file';
import type { Marker } from '@/core/watermark/marker';

type TakePermit = Pick<Permit, 'watermark' | 'take'>;
type Encoding = 'image/png' | 'image/jpeg' | 'image/webp';

/** As much of a file as is decrypted at a time where it is handed over as it came, in bytes. */
const PIECE = 8 << 20;
/** Pixels of a picture that are held in memory to be marked. */
const MOST_PIXELS = 40_000_000;
const PAPER_QUALITY = 0.85;
const FILE_QUALITY = 0.95;

/** A picture, encoded. `quality`: from 0 to 1, where the format has any. */
export function encoded(
  { width, height, rgba }: Picture,
  type: Encoding,
  quality?: number,
): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const pixels = new Uint8ClampedArray(rgba.buffer as ArrayBuffer, rgba.byteOffset, rgba.length);
  canvas.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.convertToBlob({ type, ...(quality === undefined ? {} : { quality }) });
}

function part(bytes: Uint8Array): BlobPart {
  return bytes as Uint8Array<ArrayBuffer>;
}

async function* sheetsOf(
  document: OwnDocument,
  permit: TakePermit,
  marker: Marker,
): AsyncGenerator<Sheet, void> {
  if (permit.take.kind !== 'print') throw new OwnMachineError('WITHHELD');
  for (let page = permit.take.from; page <= permit.take.to; page++) {
    const { picture, points } = await document.sheet(permit, page, marker);
    const { width, height } = picture;
    const jpeg = await encoded(picture, 'image/jpeg', PAPER_QUALITY);
    yield { bytes: new Uint8Array(await jpeg.arrayBuffer()), width, height, size: points };
  }
}

/** A copy on paper, as a PDF of pictures. @throws OwnMachineError, ContentError */
export async function printedPdf(
  document: OwnDocument,
  permit: TakePermit,
  marker: Marker,
  title: string,
): Promise<Blob> {
  const parts: Blob[] = [];
  // A browser keeps what is large in a blob on the disk.
  for await (const piece of picturesToPdf(title, sheetsOf(document, permit, marker)))
    parts.push(new Blob([part(piece)]));
  return new Blob(parts, { type: 'application/pdf' });
}

type Kept = { readonly blob: Blob; readonly marked: boolean };

/** The file in the clear, with the watermark where its format is one that is marked here. */
export async function keptFile(
  reader: PlainReader,
  mediaType: MediaType,
  watermark: Watermark,
  { shaped }: Pick<Marker, 'shaped'>,
): Promise<Kept> {
  const layers = await shaped(layersInFile(watermark, mediaType));
  const mayBeMarked = layers.length > 0 && reader.size <= MAX_MARKED;
  const blob = mayBeMarked ? await marked(reader, mediaType, layers).catch(() => null) : null;
  if (blob !== null) return { blob, marked: true };
  const parts: Blob[] = [];
  for (let at = 0; at < reader.size; at += PIECE)
    parts.push(new Blob([part(reader.read(at, Math.min(PIECE, reader.size - at)))]));
  return { blob: new Blob(parts, { type: mediaType }), marked: false };
}

/** The file with its watermark; null: its format is not marked here. Throws where it cannot be rewritten. */
async function marked(
  reader: PlainReader,
  mediaType: MediaType,
  layers: readonly ShapedLayer[],
): Promise<Blob | null> {
  switch (mediaType) {
    case 'application/pdf': {
      const bytes = await markPdf(reader.read(0, reader.size), layers);
      return new Blob([part(bytes)], { type: mediaType });
    }
    case 'image/png':
    case 'image/jpeg':
    case 'image/webp':
      return markedPicture(new Blob([part(reader.read(0, reader.size))]), mediaType, layers);
    default:
      return null;
  }
}

/** Upright, in its own format. */
async function markedPicture(
  file: Blob,
  type: Encoding,
  layers: readonly ShapedLayer[],
): Promise<Blob | null> {
  const bitmap = await createImageBitmap(file);
  const { width, height } = bitmap;
  try {
    if (width * height > MOST_PIXELS) return null;
    const context = new OffscreenCanvas(width, height).getContext('2d');
    if (context === null) return null;
    context.drawImage(bitmap, 0, 0);
    const { data } = context.getImageData(0, 0, width, height);
    const picture = { width, height, rgba: new Uint8Array(data.buffer) };
    burn(picture, pageStamp(layers, width, height));
    return await encoded(picture, type, FILE_QUALITY);
  } finally {
    bitmap.close();
  }
}
