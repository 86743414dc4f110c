import { CHUNK, TAG, openChunk, sealChunk, type ChunkCipher } from '@/core/age/chunks';
import { concatBytes } from '@/core/base/bytes';

/**
 * Regroups a stream into pieces of exactly `size` bytes and one last piece of 1 to `size` bytes
 * (an empty stream is one empty piece), saying which one is the last.
 */
async function* pieces(source: AsyncIterable<Uint8Array>, size: number): AsyncGenerator<{ readonly piece: Uint8Array; readonly last: boolean }> {
  let held = new Uint8Array(0);
  for await (const bytes of source) {
    let at = 0;
    if (held.length > 0 && held.length < size) {
      at = Math.min(bytes.length, size - held.length);
      held = concatBytes(held, bytes.subarray(0, at)) as Uint8Array<ArrayBuffer>;
    }
    if (at === bytes.length) continue;
    if (held.length === size) {
      yield { piece: held, last: false };
      held = new Uint8Array(0);
    }
    // A full piece is given out only once something follows it: it might be the last.
    for (; bytes.length - at > size; at += size) yield { piece: bytes.subarray(at, at + size), last: false };
    held = bytes.subarray(at) as Uint8Array<ArrayBuffer>;
  }
  yield { piece: held, last: true };
}

/**
 * Seals a stream of plain bytes into chunks, beginning at chunk `first`.
 *
 * `ends` says whether the stream's end is the payload's end; where it is not, the stream must be a
 * whole number of chunks long, so that the next part can go on at the following one.
 */
export async function* sealStream(cipher: ChunkCipher, source: AsyncIterable<Uint8Array>, first = 0, ends = true): AsyncGenerator<Uint8Array> {
  let index = first;
  for await (const { piece, last } of pieces(source, CHUNK)) {
    yield sealChunk(cipher, index, last && ends, piece);
    index++;
  }
}

/**
 * Opens a stream of sealed chunks. A consumer that needs the whole must wait for the end: a cut
 * or altered tail throws only there.
 *
 * @throws AgeError `DAMAGED`
 */
export async function* openStream(cipher: ChunkCipher, source: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let index = 0;
  for await (const { piece, last } of pieces(source, CHUNK + TAG)) {
    yield openChunk(cipher, index, last, piece);
    index++;
  }
}
