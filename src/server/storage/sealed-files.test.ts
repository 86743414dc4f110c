import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { CHUNK, TAG, sealedSize } from '@/core/age/chunks';
import { openStream, sealStream } from '@/core/age/stream';
import { concatBytes } from '@/core/base/bytes';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import { sealedFilesHere, type SealedFiles } from '@/server/storage/sealed-files';
import { createSealingThreads } from '@/server/storage/sealing-threads';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { lent } from '../../../tests/support/lent';

const folder = mkdtempSync(path.join(tmpdir(), 'sealed-'));
const threads = createSealingThreads('build/workers');
afterAll(async () => {
  await threads.close();
  rmSync(folder, { recursive: true });
});
const key = new Uint8Array(randomBytes(32));
const WHOLE = { key, first: 0, ends: true };
/** A lot is 16 chunks: sizes around the edges of both, and more lots than are at work at a time. */
const SIZES = [0, 1, CHUNK - 1, CHUNK, CHUNK + 1].concat([
  16 * CHUNK - 1,
  16 * CHUNK,
  16 * CHUNK + 1,
  32 * CHUNK,
  33 * CHUNK + 7,
  200 * CHUNK + 5,
]);

async function withFiles(
  content: Uint8Array,
  use: (from: FileHandle, to: FileHandle) => Promise<void>,
): Promise<Buffer> {
  const name = (which: string): string => path.join(folder, which);
  writeFileSync(name('from'), content);
  const [from, to] = [await open(name('from'), 'r'), await open(name('to'), 'w')];
  try {
    await use(from, to);
    return readFileSync(name('to'));
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

function sealedBy(plain: Uint8Array, first = 0, ends = true): Promise<Buffer> {
  return collect(sealStream(nodeChunkCipher(key), one(plain), first, ends));
}

const ways: readonly (readonly [string, SealedFiles])[] = [
  ['here', sealedFilesHere],
  ['in threads', threads],
];

describe.each(ways)('sealed files, %s', (_, files) => {
  test.each(SIZES)('%i bytes are sealed as a stream would, and opened again', async (size) => {
    const plain = new Uint8Array(randomBytes(size));
    const wanted = await sealedBy(plain);
    expect(wanted.length).toBe(sealedSize(size));
    const inFront = new Uint8Array(100).fill(1);
    const from = concatBytes(inFront, plain, inFront);
    const ofFile = await withFiles(from, (file, to) =>
      files.seal(WHOLE, { file, offset: 100, length: size }, { file: to, offset: 0 }),
    );
    expect(ofFile.equals(wanted)).toBe(true);
    for (const piece of [1000, CHUNK, 3 * CHUNK + 11]) {
      const ofStream = await withFiles(from, (__, to) =>
        files.seal(WHOLE, lent(plain, piece), { file: to, offset: 0 }),
      );
      expect(ofStream.equals(wanted)).toBe(true);
    }
    const told: number[] = [];
    const opened = await withFiles(concatBytes(inFront, wanted, inFront), (file, to) =>
      files.open(
        key,
        { file, offset: 100, length: wanted.length },
        { file: to, offset: 0 },
        (done) => told.push(done),
      ),
    );
    expect(opened.equals(Buffer.from(plain))).toBe(true);
    expect(told.at(-1)).toBe(size);
  });

  test('a payload that comes in parts is sealed as one that comes whole', async () => {
    const plain = new Uint8Array(randomBytes(40 * CHUNK + 9));
    const cut = 20 * CHUNK;
    const sealed = await withFiles(plain, async (file, to) => {
      await files.seal({ key, first: 0, ends: false }, one(plain.subarray(0, cut)), {
        file: to,
        offset: 0,
      });
      await files.seal(
        { key, first: 20, ends: true },
        { file, offset: cut, length: plain.length - cut },
        { file: to, offset: 20 * (CHUNK + TAG) },
      );
    });
    expect(sealed.equals(await sealedBy(plain))).toBe(true);
  });

  test.each([0, CHUNK + 3, 16 * (CHUNK + TAG), 40 * (CHUNK + TAG) - 1])(
    'altered at byte %i it is refused, and cut',
    async (at) => {
      const sealed = await sealedBy(new Uint8Array(40 * CHUNK));
      const opening = (bytes: Uint8Array, length: number): Promise<Buffer> =>
        withFiles(bytes, (file, to) =>
          files.open(key, { file, offset: 0, length }, { file: to, offset: 0 }),
        );
      const cut = sealed.subarray(0, at);
      await expect(opening(cut, at)).rejects.toMatchObject({ code: 'DAMAGED' });
      sealed[at] = (sealed[at] ?? 0) ^ 1;
      await expect(opening(sealed, sealed.length)).rejects.toMatchObject({ code: 'DAMAGED' });
    },
  );

  test.each([3, 40])('a file of %i chunks that became shorter is not sealed', async (chunks) => {
    const length = chunks * CHUNK;
    await expect(
      withFiles(new Uint8Array(length - 1), (file, to) =>
        files.seal(WHOLE, { file, offset: 0, length }, { file: to, offset: 0 }),
      ),
    ).rejects.toMatchObject({ code: 'DAMAGED' });
  });

  test.each([3, 40])('says that there is no room for %i chunks', async (chunks) => {
    const full = await open('/dev/full', 'w');
    const plain = new Uint8Array(chunks * CHUNK);
    try {
      await expect(
        files.seal(WHOLE, lent(plain, CHUNK), { file: full, offset: 0 }),
      ).rejects.toMatchObject({ code: 'ENOSPC' });
    } finally {
      await full.close();
    }
  });

  test('writes nothing any more once a source has failed', async () => {
    const size = 60 * CHUNK;
    const failing = async function* (): AsyncGenerator<Uint8Array> {
      yield* lent(new Uint8Array(size), CHUNK);
      throw new Error('the source broke');
    };
    const to = await open(path.join(folder, 'to'), 'w');
    await expect(files.seal(WHOLE, failing(), { file: to, offset: 0 })).rejects.toThrow(
      'the source broke',
    );
    const { mtimeMs, size: before } = await to.stat();
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await to.stat()).toMatchObject({ mtimeMs, size: before });
    await to.close();
  });

  test('several at once do not meet', async () => {
    const plains = Array.from({ length: 6 }, () => new Uint8Array(randomBytes(50 * CHUNK + 1)));
    await Promise.all(
      plains.map(async (plain, index) => {
        const name = path.join(folder, `several-${String(index)}`);
        const file = await open(name, 'w');
        await files.seal(WHOLE, lent(plain, 70_000), { file, offset: 0 });
        await file.close();
        expect(readFileSync(name).equals(await sealedBy(plain))).toBe(true);
      }),
    );
  });
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
