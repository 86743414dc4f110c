import {
  CHUNK,
  chunkCount,
  payloadKey,
  sealChunk,
  type ChunkCipherFactory,
} from '@/core/age/chunks';
import type { Envelope } from '@/core/wrapper/write';

/** A file that is encrypted where it lies. */
export type Plain = {
  /** In bytes. */
  readonly size: number;
  /** Reads exactly `length` bytes at `offset`. */
  readonly readAt: (offset: number, length: number) => Uint8Array;
};

/** What goes around and into it. */
export type Sealing = {
  /** The header of the age file, as the service made it. */
  readonly header: Uint8Array;
  /** 16 bytes. */
  readonly fileKey: Uint8Array;
  /** 16 random bytes that were never used with this key. */
  readonly nonce: Uint8Array;
  readonly envelope: Envelope;
  readonly cipher: ChunkCipherFactory;
};

/** Chunks that are read at once: 4 MiB. */
const AT_ONCE = 64;

/**
 * Writes a protected file piece by piece (docs/format.md, 2), with no more memory than a few chunks,
 * whatever its size.
 *
 * @param write takes each piece in turn; a piece is not kept
 * @param told how many plain bytes are sealed so far
 */
export function writeProtected(
  { size, readAt }: Plain,
  { header, fileKey, nonce, envelope: { head, tail }, cipher }: Sealing,
  write: (piece: Uint8Array) => void,
  told: (sealed: number) => void,
): void {
  const seal = cipher(payloadKey(fileKey, nonce));
  const chunks = chunkCount(size);
  write(head);
  write(header);
  write(nonce);
  for (let first = 0; first < chunks; first += AT_ONCE) {
    const start = first * CHUNK;
    const part = readAt(start, Math.min(AT_ONCE * CHUNK, size - start));
    for (let at = 0; at < part.length; at += CHUNK) {
      const index = first + at / CHUNK;
      const plain = part.subarray(at, at + CHUNK);
      for (const piece of sealChunk(seal, index, index === chunks - 1, plain)) write(piece);
    }
    told(start + part.length);
  }
  write(tail);
}
