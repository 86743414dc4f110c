import { crc32, deflateSync } from 'node:zlib';
import type { PalettePicture } from '@/core/watermark/palette';

const SIGNATURE = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a);
const EIGHT_BITS = 8;
const BY_PALETTE = 3;
const NO_FILTER = 0;

function chunk(type: string, data: Uint8Array): Buffer {
  const bytes = Buffer.alloc(data.length + 12);
  bytes.writeUInt32BE(data.length, 0);
  bytes.write(type, 4, 'latin1');
  bytes.set(data, 8);
  bytes.writeUInt32BE(crc32(bytes.subarray(4, 8 + data.length)), 8 + data.length);
  return bytes;
}

/** What compression writes into at a time: most pages fit at once. */
const CHUNK = 1 << 19;

type Size = Pick<PalettePicture, 'width' | 'height'>;

/** Rows as PNG takes them: before each stands the filter it was made with, none, which suits a palette best. */
export function rowsOf({ width, height }: Size, indexes: Uint8Array): Uint8Array {
  const rows = new Uint8Array((width + 1) * height);
  for (let row = 0; row < height; row++)
    rows.set(indexes.subarray(row * width, (row + 1) * width), row * (width + 1) + 1);
  return rows;
}

/** What stands in such rows, without what stands before each. */
export function indexesOf({ width, height }: Size, rows: Uint8Array): Uint8Array {
  const indexes = new Uint8Array(width * height);
  for (let row = 0; row < height; row++)
    indexes.set(rows.subarray(row * (width + 1) + 1, (row + 1) * (width + 1)), row * width);
  return indexes;
}

/** Rows of one's own to burn into, in memory that is used again for the next page of this thread. */
export function ownRows(rows: Uint8Array): Uint8Array {
  if (scratch.length < rows.length) scratch = new Uint8Array(rows.length);
  const own = scratch.subarray(0, rows.length);
  own.set(rows);
  return own;
}

let scratch = new Uint8Array(0);

/** Leaves nothing of the page that was made last. */
export function clearRows(): void {
  scratch.fill(0);
}

/** A picture of at most 256 colours as PNG (ISO/IEC 15948), one byte a pixel before it is compressed. */
export function palettePng(
  { width, height, colours }: Pick<PalettePicture, 'width' | 'height' | 'colours'>,
  rows: Uint8Array,
): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([EIGHT_BITS, BY_PALETTE, 0, 0, 0], 8);
  for (let row = 0; row < height; row++) rows[row * (width + 1)] = NO_FILTER;
  const data = deflateSync(rows, { level: 1, chunkSize: CHUNK });
  return Buffer.concat([
    SIGNATURE,
    chunk('IHDR', header),
    chunk('PLTE', Buffer.from(colours.flatMap(({ red, green, blue }) => [red, green, blue]))),
    chunk('IDAT', data),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
