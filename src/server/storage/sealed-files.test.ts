import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync, readFileSync } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { CHUNK, TAG, sealedSize } from '@/core/age/chunks';
import { openStream, sealStream } from '@/core/age/stream';
import { concatBytes } from '@/core/base/bytes';
import { openSealedFile } from '@/server/storage/sealed-files';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';

const folder = mkdtempSync(path.join(tmpdir(), 'sealed-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});
const key = new Uint8Array(randomBytes(32));

async function withFiles<T>(
  content: Uint8Array,
  use: (from: FileHandle, to: FileHandle) => Promise<T>,
): Promise<{ readonly result: T; readonly written: Buffer }> {
  writeFileSync(path.join(folder, 'from'), content);
  const [from, to] = [
    await open(path.join(folder, 'from'), 'r'),
    await open(path.join(folder, 'to'), 'w'),
  ];
  try {
    return { result: await use(from, to), written: readFileSync(path.join(folder, 'to')) };
  } finally {
    await from.close();
    await to.close();
  }
}

async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}

async function collect(source: AsyncIterable<Uint8Array>): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  for await (const part of source) parts.push(part);
  return Buffer.concat(parts);
}

/** A lot is 16 chunks: sizes around the edges of both. */
const sizes = [
  0,
  1,
  CHUNK - 1,
  CHUNK,
  CHUNK + 1,
  16 * CHUNK - 1,
  16 * CHUNK,
  16 * CHUNK + 1,
  33 * CHUNK + 7,
];

test.each(sizes)(
  '%i bytes are opened as a stream would, in the middle of another file',
  async (size) => {
    const plain = new Uint8Array(randomBytes(size));
    const cipher = nodeChunkCipher(key);
    const sealed = await collect(sealStream(cipher, one(plain)));
    expect(sealed.length).toBe(sealedSize(size));
    const { result: bytes, written: opened } = await withFiles(
      concatBytes(new Uint8Array(100), sealed, new Uint8Array(50)),
      (from, to) =>
        openSealedFile(
          { file: from, offset: 100, length: sealed.length },
          { file: to, offset: 0 },
          cipher,
        ),
    );
    expect(bytes).toBe(size);
    expect(opened.equals(Buffer.from(plain))).toBe(true);
  },
);

test.each([
  [0, 1],
  [CHUNK + 3, 1],
  [16 * (CHUNK + TAG), 1],
  [20 * (CHUNK + TAG) - 1, 1],
])('altered at byte %i it is refused', async (at) => {
  const sealed = await collect(
    sealStream(nodeChunkCipher(key), one(new Uint8Array(20 * CHUNK - 16 * TAG))),
  );
  const place = Math.min(at, sealed.length - 1);
  sealed[place] = (sealed[place] ?? 0) ^ 1;
  await expect(
    withFiles(sealed, (from, to) =>
      openSealedFile(
        { file: from, offset: 0, length: sealed.length },
        { file: to, offset: 0 },
        nodeChunkCipher(key),
      ),
    ),
  ).rejects.toMatchObject({ code: 'DAMAGED' });
  await expect(
    withFiles(sealed.subarray(0, -1), (from, to) =>
      openSealedFile(
        { file: from, offset: 0, length: sealed.length },
        { file: to, offset: 0 },
        nodeChunkCipher(key),
      ),
    ),
  ).rejects.toMatchObject({ code: 'DAMAGED' });
});

test('the browser’s cipher and the server’s are one', async () => {
  const sodium = (await sodiumChunkCipher())(key);
  const node = nodeChunkCipher(key);
  for (const size of [0, 1, 1000, CHUNK]) {
    const [nonce, plain] = [new Uint8Array(randomBytes(12)), new Uint8Array(randomBytes(size))];
    const sealed = Buffer.concat(node.seal(nonce, plain));
    expect(Buffer.concat(sodium.seal(nonce, plain)).equals(sealed)).toBe(true);
    expect(Buffer.from(sodium.open(nonce, sealed) ?? []).equals(Buffer.from(plain))).toBe(true);
    const broken = Buffer.from(sealed);
    broken[0] = (broken[0] ?? 0) ^ 1;
    expect(sodium.open(nonce, broken)).toBeNull();
  }
  expect(
    Buffer.concat([
      await collect(
        openStream(sodium, one(await collect(sealStream(node, one(new Uint8Array(3 * CHUNK)))))),
      ),
    ]).length,
  ).toBe(3 * CHUNK);
});
