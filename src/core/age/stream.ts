import { CHUNK, TAG, openChunk, sealChunk, type ChunkCipher } from '@/core/age/chunks';
import { concatBytes } from '@/core/base/bytes';

/**
 * Regroups bytes into pieces of exactly `size`. A full piece is given out only once something
 * follows it, for it might be the last: what `rest` gives at the end is 0 to `size` bytes, and 0
 * only where nothing came at all.
 */
function regrouping(size: number): {
  readonly take: (bytes: Uint8Array) => Uint8Array[];
  readonly rest: () => Uint8Array;
} {
  let held: Uint8Array = new Uint8Array(0);
  return {
    take: (bytes) => {
      const full: Uint8Array[] = [];
      let at = 0;
      if (held.length > 0 && held.length < size) {
        at = Math.min(bytes.length, size - held.length);
        held = concatBytes(held, bytes.subarray(0, at));
      }
      if (at === bytes.length) return full;
      if (held.length === size) full.push(held);
      for (; bytes.length - at > size; at += size) full.push(bytes.subarray(at, at + size));
      // Copied, for what came may be lent until the next is asked for.
      held = new Uint8Array(bytes.subarray(at));
      return full;
    },
    rest: () => held,
  };
}

/**
 * Seals a stream of plain bytes into chunks, beginning at chunk `first`.
 *
 * `ends` says whether the stream's end is the payload's end; where it is not, the stream must be a
 * whole number of chunks long, so that the next part can go on at the following one.
 */
export async function* sealStream(
  cipher: ChunkCipher,
  source: AsyncIterable<Uint8Array>,
  first = 0,
  ends = true,
): AsyncGenerator<Uint8Array> {
  const pieces = regrouping(CHUNK);
  let index = first;
  for await (const bytes of source) {
    for (const piece of pieces.take(bytes)) {
      for (const part of sealChunk(cipher, index, false, piece)) yield part;
      index++;
    }
  }
  for (const part of sealChunk(cipher, index, ends, pieces.rest())) yield part;
}

/**
 * Opens a stream of sealed chunks. A consumer that needs the whole must wait for the end: a cut
 * or altered tail throws only there.
 *
 * @throws AgeError `DAMAGED`
 */
export async function* openStream(
  cipher: ChunkCipher,
  source: AsyncIterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  const pieces = regrouping(CHUNK + TAG);
  let index = 0;
  for await (const bytes of source) {
    for (const piece of pieces.take(bytes)) {
      yield openChunk(cipher, index, false, piece);
      index++;
    }
  }
  yield openChunk(cipher, index, true, pieces.rest());
}
