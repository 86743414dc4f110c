// Reads chunks, seals or opens them where they stand and writes them: nothing is handed to another
// thread, or allocated, on the way.
import { readSync, writevSync } from 'node:fs';
import sodium from 'sodium-native';
import { TAG, openChunk, sealChunk, type ChunkCipherFactory } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import {
  COMES,
  LOT,
  SEALED,
  type SealingReply,
  type SealingTask,
} from '@/server/storage/sealing-task';
import { giveWay } from '@/workers/give-way';

/** A file ends before all that was to be read. */
class TooShort extends Error {}

/**
 * ChaCha20-Poly1305 (RFC 8439) by libsodium, which works where the bytes are: the room of the tag
 * stands behind them. node:crypto allocates, clears and copies each chunk, and two of its threads
 * keep each other waiting for that memory.
 */
const inPlace: ChunkCipherFactory = (key) => ({
  seal: (nonce, plain) => {
    const sealed = new Uint8Array(plain.buffer, plain.byteOffset, plain.length + TAG);
    sodium.crypto_aead_chacha20poly1305_ietf_encrypt(sealed, plain, null, null, nonce, key);
    return [sealed];
  },
  open: (nonce, sealed) => {
    const plain = sealed.subarray(0, sealed.length - TAG);
    try {
      sodium.crypto_aead_chacha20poly1305_ietf_decrypt(plain, null, sealed, null, nonce, key);
      return plain;
    } catch {
      return null;
    }
  },
});

giveWay();
const own = new Uint8Array(LOT * SEALED);

/** The chunks that come, each at the place of a sealed one; an empty payload is one empty chunk. */
function chunksOf({ work, bytes, from }: SealingTask): Uint8Array[] {
  const size = COMES[work];
  const memory = 'shared' in from ? from.shared : own;
  const chunks = Array.from({ length: Math.max(1, Math.ceil(bytes / size)) }, (_, index) => {
    const start = index * SEALED;
    return memory.subarray(start, start + Math.min(size, bytes - index * size));
  });
  if (!('shared' in from))
    for (const [index, chunk] of chunks.entries())
      readWhole(from.fd, chunk, from.at + index * size);
  return chunks;
}

function readWhole(fd: number, into: Uint8Array, at: number): void {
  for (let got = 0; got < into.length;) {
    const read = readSync(fd, into, got, into.length - got, at + got);
    if (read === 0) throw new TooShort();
    got += read;
  }
}

function writeWhole(fd: number, parts: Uint8Array[], at: number): void {
  const wanted = parts.reduce((sum, { length }) => sum + length, 0);
  if (writevSync(fd, parts, at) !== wanted)
    throw Object.assign(new Error('a write fell short'), { code: 'ENOSPC' });
}

function perform(task: SealingTask, at: { index: number }): void {
  const { work, key, first, ends, to } = task;
  const cipher = inPlace(key);
  const chunks = chunksOf(task);
  const done = chunks.flatMap((chunk, index) => {
    at.index = first + index;
    const last = ends && index === chunks.length - 1;
    return work === 'seal'
      ? sealChunk(cipher, at.index, last, chunk)
      : [openChunk(cipher, at.index, last, chunk)];
  });
  writeWhole(to.fd, done, to.at);
}

/** Entry point of the worker thread, called by the pool. */
export default function run(task: SealingTask): SealingReply {
  const at = { index: task.first };
  try {
    perform(task, at);
    return null;
  } catch (error) {
    if (error instanceof AgeError) return { damaged: at.index };
    if (error instanceof TooShort) return { short: true };
    if (error instanceof Error && 'code' in error)
      return { code: String(error.code), message: error.message };
    throw error;
  } finally {
    task.key.fill(0);
  }
}
