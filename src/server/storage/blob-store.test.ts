import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import fc from 'fast-check';
import type { BlobStore, Range } from '@/server/storage/blob-store';
import { createDiskBlobStore } from '@/server/storage/disk-blob-store';
import { createMemoryBlobStore } from '@/server/storage/memory-blob-store';
import { sealStream } from '@/core/age/stream';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { openBlob } from '@/server/storage/open-blob';
import { lent } from '../../../tests/support/lent';

const folder = mkdtempSync(path.join(tmpdir(), 'embargo-blobs-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});

/** Bytes that tell by their value where they belong. */
const content = Uint8Array.from({ length: 700_001 }, (_, i) => (i * 31 + (i >> 12)) & 255);

async function* inPieces(bytes: Uint8Array, size: number): AsyncGenerator<Uint8Array, void> {
  for (let at = 0; at < bytes.length; at += size)
    yield await Promise.resolve(bytes.subarray(at, at + size));
}

async function all(source: AsyncIterable<Uint8Array>): Promise<Buffer> {
  const pieces: Uint8Array[] = [];
  for await (const piece of source) pieces.push(piece);
  return Buffer.concat(pieces);
}

const stores: readonly (readonly [string, BlobStore])[] = [
  ['a folder', createDiskBlobStore(folder)],
  ['memory', createMemoryBlobStore()],
];

// What every store has to do, whatever it keeps its bytes in.
describe.each(stores)('blobs in %s', (_name, store) => {
  const write = (key: string, offset = 0, bytes = content) =>
    store.writeAt(key, offset, inPieces(bytes, 65_536));
  const readAt = (key: string, range: Range): Uint8Array => {
    const blob = openBlob(store.placeOf(key));
    try {
      return blob.read(range);
    } finally {
      blob.close();
    }
  };

  test('are read back whole, unfinished and finished', async () => {
    await write('whole');
    expect(await store.sizeOf('whole')).toBe(content.length);
    expect((await all(store.read('whole'))).equals(content)).toBe(true);
    await store.finish('whole', content.length);
    expect(await store.sizeOf('whole')).toBe(content.length);
    expect((await all(store.read('whole'))).equals(content)).toBe(true);
  });

  test('are read by range, while waiting and without, and end where they end', async () => {
    await write('ranges');
    await fc.assert(
      fc.asyncProperty(
        fc.nat(content.length + 10),
        fc.integer({ min: 1, max: 300_000 }),
        async (offset, length) => {
          const wanted = Buffer.from(content.subarray(offset, offset + length));
          expect((await all(store.read('ranges', { offset, length }))).equals(wanted)).toBe(true);
          expect(wanted.equals(readAt('ranges', { offset, length }))).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('are sealed on their way, from pieces that are only lent', async () => {
    const key = new Uint8Array(32).fill(7);
    const cipher = nodeChunkCipher(key);
    for (const size of [1000, 65_536, 300_000, content.length]) {
      await store.sealAt('sealed', 0, { key, first: 3, ends: true }, lent(content, size));
      const wanted = await all(sealStream(cipher, inPieces(content, 65_536), 3));
      expect((await all(store.read('sealed'))).equals(wanted)).toBe(true);
    }
  });

  test('are written on where they were cut, which takes off what stood there', async () => {
    await write('cut', 0, content.subarray(0, 500_000));
    await write('cut', 300_000, content.subarray(300_000, 400_000));
    expect(await store.sizeOf('cut')).toBe(400_000);
    await write('cut', 400_000, content.subarray(400_000));
    expect((await all(store.read('cut'))).equals(content)).toBe(true);
  });

  test('that are not of the size that was said are not finished', async () => {
    await write('short', 0, content.subarray(0, 10));
    await expect(store.finish('short', 11)).rejects.toMatchObject({ code: 'BLOB_INCOMPLETE' });
    await expect(store.finish('short', 10)).resolves.toBeUndefined();
    // Said once more, by a process that did not hear the answer.
    await expect(store.finish('short', 10)).resolves.toBeUndefined();
  });

  test('that are not there have no size and cannot be opened', async () => {
    expect(await store.sizeOf('nothing')).toBeNull();
    expect(() => readAt('nothing', { offset: 0, length: 1 })).toThrow();
    await expect(all(store.read('nothing'))).rejects.toThrow();
    await expect(store.remove('nothing')).resolves.toBeUndefined();
  });

  test('that nobody names are swept away while unfinished, finished ones never', async () => {
    for (const key of ['named', 'left', 'done']) await write(key, 0, content.subarray(0, 9));
    await store.finish('done', 9);
    await store.sweep(new Set(['named']));
    expect(await store.sizeOf('named')).toBe(9);
    expect(await store.sizeOf('left')).toBeNull();
    expect(await store.sizeOf('done')).toBe(9);
    await store.remove('done');
    expect(await store.sizeOf('done')).toBeNull();
  });
});

test('a store that is full says so before anything is written', async () => {
  const store = createMemoryBlobStore(100);
  await store.writeAt('a', 0, inPieces(content.subarray(0, 60), 60));
  await expect(store.needRoom(41)).rejects.toMatchObject({ code: 'DISK_FULL' });
  await expect(store.needRoom(40)).resolves.toBeUndefined();
});
