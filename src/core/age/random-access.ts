import { CHUNK, TAG, chunkCount, openChunk, plainSize, type ChunkCipher } from '@/core/age/chunks';

/** Reads exactly `length` bytes at `offset` of the sealed chunks; throws where it cannot. */
export type ReadAt = (offset: number, length: number) => Uint8Array;

export type PlainReader = {
  /** Length of the plain content in bytes. */
  readonly size: number;
  /** Up to `length` plain bytes from `offset` on; fewer only at the end. Every byte was authenticated. */
  readonly read: (offset: number, length: number) => Uint8Array;
  /** How many chunks were decrypted so far. */
  readonly opened: () => number;
};

/**
 * Reads plain bytes anywhere in a sealed payload, decrypting only the chunks it needs and keeping
 * the newest `keep` of them.
 *
 * The payload's length is trusted only once its last chunk has verified as the last one, so that
 * is opened first: a file cut at a chunk's edge is refused before anything is read.
 *
 * @throws AgeError `DAMAGED`, here or from `read`
 */
export function readerOf(
  cipher: ChunkCipher,
  sealedBytes: number,
  readAt: ReadAt,
  keep = 64,
): PlainReader {
  const size = plainSize(sealedBytes);
  const chunks = chunkCount(size);
  const kept = new Map<number, Uint8Array>();
  let opened = 0;

  const chunk = (index: number): Uint8Array => {
    const found = kept.get(index);
    if (found !== undefined) {
      kept.delete(index);
      kept.set(index, found);
      return found;
    }
    const start = index * (CHUNK + TAG);
    const sealed = readAt(start, Math.min(CHUNK + TAG, sealedBytes - start));
    const plain = openChunk(cipher, index, index === chunks - 1, sealed);
    opened++;
    kept.set(index, plain);
    if (kept.size > keep) kept.delete(kept.keys().next().value ?? index);
    return plain;
  };

  chunk(chunks - 1);
  return {
    size,
    opened: () => opened,
    read: (offset, length) => {
      const end = Math.min(size, offset + length);
      const out = new Uint8Array(Math.max(0, end - offset));
      for (let at = offset; at < end;) {
        const index = Math.floor(at / CHUNK);
        const from = at - index * CHUNK;
        const part = chunk(index).subarray(from, from + end - at);
        out.set(part, at - offset);
        at += part.length;
      }
      return out;
    },
  };
}
