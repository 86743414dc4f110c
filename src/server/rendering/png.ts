import { constants, crc32, deflateSync } from 'node:zlib';
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

/**
 * Rows as PNG takes them: before each stands the filter it was made with, none, which suits a palette
 * best. In memory that is used again for the next page of this thread.
 */
export function rowsOf(
  { width, height }: Pick<PalettePicture, 'width' | 'height'>,
  indexes: Uint8Array,
): Uint8Array {
  const bytes = (width + 1) * height;
  if (scratch.length < bytes) scratch = new Uint8Array(bytes);
  const rows = scratch.subarray(0, bytes);
  for (let row = 0; row < height; row++)
    rows.set(indexes.subarray(row * width, (row + 1) * width), row * (width + 1) + 1);
  return rows;
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
  // Pages are runs of one colour: looking for nothing else is faster, and smaller besides.
  const data = deflateSync(rows, { level: 1, strategy: constants.Z_RLE, chunkSize: CHUNK });
  return Buffer.concat([
    SIGNATURE,
    chunk('IHDR', header),
    chunk('PLTE', Buffer.from(colours.flatMap(({ red, green, blue }) => [red, green, blue]))),
    chunk('IDAT', data),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
