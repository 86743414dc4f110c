import type { FileHandle } from 'node:fs/promises';
import { CHUNK, TAG, chunkCount, openChunk, plainSize, type ChunkCipher } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { writeParts } from '@/server/storage/write-stream';

/** A stretch of an open file, in bytes. */
export type Stretch = {
  readonly file: FileHandle;
  readonly offset: number;
  readonly length: number;
};
export type Place = { readonly file: FileHandle; readonly offset: number };
/** Is told how many plain bytes are done. */
export type Progress = (bytes: number) => void;

/**
 * Chunks read, worked on and written at a time: while the cipher works on one lot, the next is read
 * and the last is written.
 */
const LOT = 16;
const SEALED = CHUNK + TAG;

async function readLot(
  { file, offset, length }: Stretch,
  at: number,
  into: Buffer,
): Promise<Buffer> {
  const wanted = Math.min(into.length, length - at);
  for (let got = 0; got < wanted;) {
    const { bytesRead } = await file.read(into, got, wanted - got, offset + at + got);
    if (bytesRead === 0) throw new AgeError('DAMAGED', 'the file became shorter while it was read');
    got += bytesRead;
  }
  return into.subarray(0, wanted);
}

/** Runs `work` over a file lot by lot, reading ahead and writing behind it. Two buffers are used in turn. */
async function pipeline(
  from: Stretch,
  to: Place,
  work: (bytes: Buffer, firstChunk: number) => Uint8Array[],
  progress: Progress,
): Promise<void> {
  const buffers = [
    Buffer.allocUnsafeSlow(SEALED * LOT),
    Buffer.allocUnsafeSlow(SEALED * LOT),
  ] as const;
  const lots = Math.max(1, Math.ceil(from.length / (SEALED * LOT)));
  let writing: Promise<void> = Promise.resolve();
  let reading = readLot(from, 0, buffers[0]);
  for (let lot = 0; lot < lots; lot++) {
    const bytes = await reading;
    const next = lot + 1;
    if (next < lots) {
      reading = readLot(from, next * SEALED * LOT, next % 2 === 0 ? buffers[0] : buffers[1]);
      // What goes wrong is thrown where it is awaited.
      reading.catch(() => undefined);
    }
    const parts = work(bytes, lot * LOT);
    await writing;
    writing = writeParts(to.file, parts, to.offset + lot * CHUNK * LOT);
    writing.catch(() => undefined);
    progress(Math.min(next * LOT * CHUNK, from.length));
  }
  await writing;
}

/** The sealed chunks in a lot. */
function piecesOf(bytes: Buffer): Buffer[] {
  return Array.from({ length: Math.ceil(bytes.length / SEALED) }, (_, i) =>
    bytes.subarray(i * SEALED, (i + 1) * SEALED),
  );
}

/**
 * Opens sealed chunks into a place of another file, in memory that does not grow with it. What was
 * written is to be thrown away where this throws.
 *
 * @returns plain bytes written
 * @throws AgeError `DAMAGED`
 */
export async function openSealedFile(
  from: Stretch,
  to: Place,
  cipher: ChunkCipher,
  progress: Progress = () => undefined,
): Promise<number> {
  const size = plainSize(from.length);
  const last = chunkCount(size) - 1;
  await pipeline(
    from,
    to,
    (bytes, first) =>
      piecesOf(bytes).map((piece, i) => openChunk(cipher, first + i, first + i === last, piece)),
    progress,
  );
  return size;
}
