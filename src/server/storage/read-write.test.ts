import { mkdtemp, open, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readAhead } from '@/server/storage/read-ahead';
import { writeStream } from '@/server/storage/write-stream';

const MIB = 1 << 20;
let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'embargo-read-write-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true });
});

/** Bytes that tell by their value where in the file they belong. */
const plain = Uint8Array.from({ length: 5 * MIB + 13 }, (_, i) => (i * 7 + (i >> 16)) & 255);

describe('reading ahead and writing behind', () => {
  it.each([
    [0, plain.length],
    [3, 4],
    [MIB, 3 * MIB],
    [4 * MIB + 1, plain.length],
    [9, 9],
  ])('copies bytes %i to %i', async (start, end) => {
    const [from, to] = [path.join(folder, 'from'), path.join(folder, 'to')];
    await writeFile(from, plain);
    const file = await open(to, 'w');
    // Written from a copy, for a piece of the reader is only lent.
    const bytes = await writeStream(
      file,
      0,
      (async function* () {
        for await (const piece of readAhead(from, start, end)) yield piece.slice();
      })(),
    );
    await file.close();
    expect(bytes).toBe(end - start);
    expect(Buffer.compare(await readFile(to), plain.subarray(start, end))).toBe(0);
  });

  it('leaves a piece as it is until the next but one is asked for', async () => {
    const from = path.join(folder, 'from');
    await writeFile(from, plain);
    let before: Uint8Array = new Uint8Array(0);
    let at = 0;
    for await (const piece of readAhead(from, 0, plain.length)) {
      expect(Buffer.compare(before, plain.subarray(at - before.length, at))).toBe(0);
      at += piece.length;
      before = piece;
    }
    expect(at).toBe(plain.length);
  });

  it('ends where the file does', async () => {
    const from = path.join(folder, 'short');
    await writeFile(from, 'short');
    const pieces: Uint8Array[] = [];
    for await (const piece of readAhead(from, 0, 3 * MIB)) pieces.push(piece.slice());
    expect(Buffer.concat(pieces).toString()).toBe('short');
  });

  it('writes nothing any more once a source has failed', async () => {
    const file = await open(path.join(folder, 'failed'), 'w');
    const failing = async function* (): AsyncGenerator<Uint8Array> {
      yield new Uint8Array(2 * MIB);
      await Promise.resolve();
      throw new Error('the source broke');
    };
    await expect(writeStream(file, 0, failing())).rejects.toThrow('the source broke');
    const { size } = await file.stat();
    await file.close();
    expect((await readFile(path.join(folder, 'failed'))).length).toBe(size);
  });

  it('says that the disk refuses', async () => {
    const file = await open(path.join(folder, 'failed'), 'r');
    await expect(
      writeStream(
        file,
        0,
        (async function* () {
          for (let i = 0; i < 5; i++) {
            await Promise.resolve();
            yield new Uint8Array(MIB);
          }
        })(),
      ),
    ).rejects.toMatchObject({ code: 'EBADF' });
    await file.close();
  });

  it('says that the disk took less than it was given, though it says so once', async () => {
    const file = await open(path.join(folder, 'lost'), 'w');
    let syncs = 0;
    const losing = {
      writev: file.writev.bind(file),
      datasync: () => {
        syncs++;
        return Promise.reject(Object.assign(new Error('lost'), { code: 'EIO' }));
      },
    };
    const writing = writeStream(
      losing,
      0,
      (async function* () {
        for (let i = 0; i < 40; i++) {
          await Promise.resolve();
          yield new Uint8Array(MIB);
        }
      })(),
    );
    await expect(writing).rejects.toMatchObject({ code: 'EIO' });
    expect(syncs).toBe(1);
    await file.close();
  });
});
