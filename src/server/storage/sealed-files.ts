import type { FileHandle } from 'node:fs/promises';
import { CHUNK, TAG, chunkCount, openChunk, plainSize, sealChunk, sealedSize, type ChunkCipher } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';

/** A stretch of an open file, in bytes. */
export type Stretch = { readonly file: FileHandle; readonly offset: number; readonly length: number };
export type Place = { readonly file: FileHandle; readonly offset: number };
/** Is told how many plain bytes are done. */
export type Progress = (bytes: number) => void;

/** Chunks read, worked on and written at a time: while the cipher works on one lot, the next is read and the last is written. */
const LOT = 16;

async function readLot({ file, offset, length }: Stretch, at: number, into: Buffer): Promise<Buffer> {
  const wanted = Math.min(into.length, length - at);
  for (let got = 0; got < wanted; ) {
    const { bytesRead } = await file.read(into, got, wanted - got, offset + at + got);
    if (bytesRead === 0) throw new AgeError('DAMAGED', 'the file became shorter while it was read');
    got += bytesRead;
  }
  return into.subarray(0, wanted);
}

async function writeLot(file: FileHandle, parts: readonly Uint8Array[], offset: number): Promise<void> {
  const wanted = parts.reduce((sum, part) => sum + part.length, 0);
  const { bytesWritten } = await file.writev([...parts], offset);
  if (bytesWritten !== wanted) throw Object.assign(new Error('a write fell short'), { code: 'ENOSPC' });
}

/** Runs `work` over a file lot by lot, reading ahead and writing behind it. Two buffers are used in turn. */
async function pipeline(from: Stretch, to: Place, inSize: number, outSize: number, work: (bytes: Buffer, firstChunk: number) => Uint8Array[], progress: Progress): Promise<void> {
  const buffers = [Buffer.allocUnsafeSlow(inSize * LOT), Buffer.allocUnsafeSlow(inSize * LOT)] as const;
  const lots = Math.max(1, Math.ceil(from.length / (inSize * LOT)));
  let writing: Promise<void> = Promise.resolve();
  let reading = readLot(from, 0, buffers[0]);
  for (let lot = 0; lot < lots; lot++) {
    const bytes = await reading;
    const next = lot + 1;
    if (next < lots) {
      reading = readLot(from, next * inSize * LOT, next % 2 === 0 ? buffers[0] : buffers[1]);
      // What goes wrong is thrown where it is awaited.
      reading.catch(() => undefined);
    }
    const parts = work(bytes, lot * LOT);
    await writing;
    writing = writeLot(to.file, parts, to.offset + lot * outSize * LOT);
    writing.catch(() => undefined);
    progress(Math.min(next * LOT * CHUNK, from.length));
  }
  await writing;
}

/** Pieces of `size` bytes; an empty buffer is one empty piece. */
function piecesOf(bytes: Buffer, size: number): Buffer[] {
  return Array.from({ length: Math.max(1, Math.ceil(bytes.length / size)) }, (_, i) => bytes.subarray(i * size, (i + 1) * size));
}

/** Seals a stretch of a file into age chunks at a place of another, in memory that does not grow with it. @returns bytes written */
export async function sealFile(from: Stretch, to: Place, cipher: ChunkCipher, progress: Progress = () => undefined): Promise<number> {
  const last = chunkCount(from.length) - 1;
  await pipeline(from, to, CHUNK, CHUNK + TAG, (bytes, first) => piecesOf(bytes, CHUNK).map((piece, i) => sealChunk(cipher, first + i, first + i === last, piece)), progress);
  return sealedSize(from.length);
}

/**
 * Opens sealed chunks into a place of another file, likewise. What was written is to be thrown away
 * where this throws.
 *
 * @returns plain bytes written
 * @throws AgeError `DAMAGED`
 */
export async function openSealedFile(from: Stretch, to: Place, cipher: ChunkCipher, progress: Progress = () => undefined): Promise<number> {
  const size = plainSize(from.length);
  const last = chunkCount(size) - 1;
  await pipeline(from, to, CHUNK + TAG, CHUNK, (bytes, first) => piecesOf(bytes, CHUNK + TAG).map((piece, i) => openChunk(cipher, first + i, first + i === last, piece)), progress);
  return size;
}
