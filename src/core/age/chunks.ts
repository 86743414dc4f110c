import { hkdf } from '@noble/hashes/hkdf.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { AgeError } from '@/core/age/errors';
import { utf8 } from '@/core/base/bytes';

/** Plain bytes in every chunk but the last (age v1, "Payload"). */
export const CHUNK = 64 * 1024;
/** Bytes that sealing adds to a chunk: a Poly1305 tag. */
export const TAG = 16;
/** Length of the nonce that stands between header and chunks. */
export const PAYLOAD_NONCE = 16;

/**
 * ChaCha20-Poly1305 under one key (RFC 8439). `seal` gives ciphertext and tag in as many parts as
 * cost it nothing; `open` answers `null` where the tag does not verify.
 */
export type ChunkCipher = {
  readonly seal: (nonce: Uint8Array, plain: Uint8Array) => readonly Uint8Array[];
  readonly open: (nonce: Uint8Array, sealed: Uint8Array) => Uint8Array | null;
};
/** Makes the cipher for a 32-byte key: node:crypto on the server, WebAssembly or noble elsewhere. */
export type ChunkCipherFactory = (key: Uint8Array) => ChunkCipher;

/** The key of the chunks: HKDF-SHA-256 of the file key, salted with the payload nonce. */
export function payloadKey(fileKey: Uint8Array, payloadNonce: Uint8Array): Uint8Array {
  return hkdf(sha256, fileKey, payloadNonce, utf8('payload'), 32);
}

/** STREAM nonce: an 11-byte big-endian counter and a byte that marks the last chunk. */
function chunkNonce(index: number, last: boolean): Uint8Array {
  const nonce = new Uint8Array(12);
  new DataView(nonce.buffer).setBigUint64(3, BigInt(index));
  nonce[11] = last ? 1 : 0;
  return nonce;
}

/** How many chunks `plainBytes` make; an empty payload is one empty chunk. */
export function chunkCount(plainBytes: number): number {
  return Math.max(1, Math.ceil(plainBytes / CHUNK));
}

/** Sealed size of `plainBytes`, without header and payload nonce. */
export function sealedSize(plainBytes: number): number {
  return plainBytes + chunkCount(plainBytes) * TAG;
}

/** Size of a whole age file with a header of `headerBytes` and `plainBytes` inside. */
export function fileSize(headerBytes: number, plainBytes: number): number {
  return headerBytes + PAYLOAD_NONCE + sealedSize(plainBytes);
}

/** Plain size of `sealedBytes` of chunks. @throws AgeError `DAMAGED` where no payload has this length */
export function plainSize(sealedBytes: number): number {
  const chunks = Math.ceil(sealedBytes / (CHUNK + TAG));
  const plain = sealedBytes - chunks * TAG;
  if (chunks < 1 || plain < 0 || sealedSize(plain) !== sealedBytes)
    throw new AgeError('DAMAGED', 'payload length');
  return plain;
}

/** Seals one chunk, in parts that belong one behind the other. `plain` is `CHUNK` long, but for the last. */
export function sealChunk(
  cipher: ChunkCipher,
  index: number,
  last: boolean,
  plain: Uint8Array,
): readonly Uint8Array[] {
  return cipher.seal(chunkNonce(index, last), plain);
}

/**
 * Opens one chunk.
 *
 * @throws AgeError `DAMAGED` where it does not verify at this place, or is an empty last chunk behind others
 */
export function openChunk(
  cipher: ChunkCipher,
  index: number,
  last: boolean,
  sealed: Uint8Array,
): Uint8Array {
  const plain = sealed.length < TAG ? null : cipher.open(chunkNonce(index, last), sealed);
  if (plain === null) throw new AgeError('DAMAGED', `chunk ${String(index)}`);
  if (plain.length === 0 && index > 0) throw new AgeError('DAMAGED', 'empty last chunk');
  return plain;
}
