// Copies of a document that is open in the browser: on paper, and in the clear.
import type { PlainReader } from '@/core/age/random-access';
import type { Permit } from '@/core/licence/permit';
import { OwnMachineError } from '@/core/own-machine/errors';
import type { OwnDocument } from '@/core/own-machine/own-document';
import { picturesToPdf, type Sheet } from '@/core/pages/picture-pdf';
import type { Picture } from '@/core/watermark/burn';
import type { Watermark } from '@/core/watermark/layers';
import { markPdf } from '@/core/watermark/mark-pdf';
import { layersInFile, MAX_MARKED } from '@/core/watermark/marked-file';
import type { Marker } from '@/core/watermark/marker';

type TakePermit = Pick<Permit, 'watermark' | 'take'>;
type Encoding = 'image/png' | 'image/jpeg';

const PDF = 'application/pdf';

/** As much of a file as is decrypted at a time where it is handed over as it came, in bytes. */
const PIECE = 8 << 20;
const PAPER_QUALITY = 0.85;

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
  return new Blob(parts, { type: PDF });
}

type Kept = { readonly blob: Blob; readonly marked: boolean };

/** The file in the clear, with the watermark, or as it came where it could not be rewritten. */
export async function keptFile(
  reader: PlainReader,
  watermark: Watermark,
  { shaped }: Pick<Marker, 'shaped'>,
): Promise<Kept> {
  const layers = await shaped(layersInFile(watermark, PDF));
  if (layers.length > 0 && reader.size <= MAX_MARKED) {
    const bytes = await markPdf(reader.read(0, reader.size), layers).catch(() => null);
    if (bytes !== null) return { blob: new Blob([part(bytes)], { type: PDF }), marked: true };
  }
  const parts: Blob[] = [];
  for (let at = 0; at < reader.size; at += PIECE)
    parts.push(new Blob([part(reader.read(at, Math.min(PIECE, reader.size - at)))]));
  return { blob: new Blob(parts, { type: PDF }), marked: false };
}
