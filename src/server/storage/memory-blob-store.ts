import type { BlobStore } from '@/server/storage/blob-store';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { sealStream } from '@/core/age/stream';
import { noRoom, notWhole } from '@/server/storage/storage-error';

const PIECE = 1 << 18;

/** Blobs in memory, for tests: what it holds ends with the process. `capacity` in bytes. */
export function createMemoryBlobStore(capacity = Number.POSITIVE_INFINITY): BlobStore {
  const incoming = new Map<string, SharedArrayBuffer>();
  const finished = new Map<string, SharedArrayBuffer>();
  const bytesOf = (key: string): SharedArrayBuffer => {
    const found = finished.get(key) ?? incoming.get(key);
    if (found === undefined) throw new Error(`there is no blob ${key}`);
    return found;
  };
  const held = (): number =>
    [...incoming.values(), ...finished.values()].reduce((sum, each) => sum + each.byteLength, 0);

  const writeAt: BlobStore['writeAt'] = async (key, offset, source) => {
    const known = incoming.get(key);
    if (known === undefined && offset > 0) throw new Error(`there is no blob ${key}`);
    const pieces = [new Uint8Array(known ?? new SharedArrayBuffer(0)).slice(0, offset)];
    for await (const piece of source) pieces.push(new Uint8Array(piece));
    const size = pieces.reduce((sum, { length }) => sum + length, 0);
    const whole = new Uint8Array(new SharedArrayBuffer(size));
    let at = 0;
    for (const piece of pieces) {
      whole.set(piece, at);
      at += piece.length;
    }
    incoming.set(key, whole.buffer);
  };

  return {
    writeAt,
    sealAt: (key, offset, { key: payloadKey, first, ends }, source) =>
      writeAt(key, offset, sealStream(nodeChunkCipher(payloadKey), source, first, ends)),
    finish: (key, size) => {
      const found = incoming.get(key) ?? finished.get(key);
      if (found?.byteLength !== size) return Promise.reject(notWhole());
      incoming.delete(key);
      finished.set(key, found);
      return Promise.resolve();
    },
    sizeOf: (key) => Promise.resolve((finished.get(key) ?? incoming.get(key))?.byteLength ?? null),
    read: async function* (key, range) {
      await Promise.resolve();
      const bytes = new Uint8Array(bytesOf(key));
      const end = range === undefined ? bytes.length : range.offset + range.length;
      for (let at = range?.offset ?? 0; at < Math.min(end, bytes.length); at += PIECE)
        yield bytes.slice(at, Math.min(at + PIECE, end));
    },
    placeOf: (key) => ({ in: 'memory', name: key, bytes: bytesOf(key) }),
    remove: (key) => {
      incoming.delete(key);
      finished.delete(key);
      return Promise.resolve();
    },
    sweep: (wanted) => {
      for (const key of incoming.keys()) if (!wanted.has(key)) incoming.delete(key);
      return Promise.resolve();
    },
    needRoom: (bytes) => (held() + bytes > capacity ? Promise.reject(noRoom()) : Promise.resolve()),
  };
}
