import { markPdf } from '@/core/watermark/mark-pdf';
import { MAX_MARKED, type MarkedFile } from '@/core/watermark/marked-file';
import type { ShapedLayer } from '@/core/watermark/layout';
import { inflationOf } from '@/server/rendering/inflation';

/** What its object streams may unpack to: all of it is held in memory at once. */
const MAX_UNPACKED = 128 * 1024 * 1024;

/** A PDF with the watermark drawn over every page, or as it came where it could not be rewritten. */
export async function keepMarked(
  bytes: Uint8Array,
  layers: readonly ShapedLayer[],
): Promise<MarkedFile> {
  if (layers.length === 0 || bytes.length > MAX_MARKED) return { bytes, marked: false };
  if (
    (await inflationOf(
      {
        size: bytes.length,
        read: (at, length) => bytes.subarray(at, Math.min(bytes.length, at + length)),
      },
      MAX_UNPACKED,
    )) !== 'within'
  )
    return { bytes, marked: false };
  try {
    return { bytes: await markPdf(bytes, layers), marked: true };
  } catch {
    return { bytes, marked: false };
  }
}
