import type { FileHandle } from 'node:fs/promises';
import { CHUNK, plainSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { openStream, sealStream } from '@/core/age/stream';
import { writeStream } from '@/server/storage/write-stream';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

/** A place in an open file, in bytes, and a stretch of one. */
export type Place = { readonly file: FileHandle; readonly offset: number };
export type Stretch = Place & { readonly length: number };

/** Chunks of an age file (age v1, "Payload") that are sealed. */
export type Payload = {
  /** The payload key, 32 bytes. */
  readonly key: Uint8Array;
  /** Number of the chunk they begin with. */
  readonly first: number;
  /** Whether the payload ends with them; where it goes on they are whole chunks. */
  readonly ends: boolean;
};
/** Is told how many bytes are done. */
export type Progress = (bytes: number) => void;

/** Seals into files and opens out of them, in memory that does not grow with them. */
export type SealedFiles = {
  /**
   * Seals what comes, or what stands in another file. A piece of a stream may be lent: it is done with
   * before the next is asked for. Most of it is on the disk by the end; whoever needs all of it there
   * syncs the file.
   *
   * @throws AgeError `DAMAGED` where the other file became shorter meanwhile; an error with the code
   * `ENOSPC` where a write falls short; whatever the disk or the source throws
   */
  readonly seal: (
    payload: Payload,
    source: AsyncIterable<Uint8Array> | Stretch,
    to: Place,
  ) => Promise<void>;
  /**
   * Opens all chunks of a payload. What was written is to be thrown away where this throws.
   *
   * @throws AgeError `DAMAGED`; what the disk throws
   */
  readonly open: (key: Uint8Array, from: Stretch, to: Place, progress?: Progress) => Promise<void>;
  readonly close: () => Promise<void>;
};

export function isStretch(source: AsyncIterable<Uint8Array> | Stretch): source is Stretch {
  return 'file' in source;
}

export function becameShorter(): AgeError {
  return new AgeError('DAMAGED', 'the file became shorter while it was read');
}

/** The bytes of a stretch, all of them. @throws AgeError `DAMAGED` */
async function* bytesOf({ file, offset, length }: Stretch): AsyncGenerator<Uint8Array> {
  if (length === 0) return;
  const stream: AsyncIterable<Buffer> = file.createReadStream({
    start: offset,
    end: offset + length - 1,
    autoClose: false,
    highWaterMark: 16 * CHUNK,
  });
  let read = 0;
  for await (const piece of stream) {
    read += piece.length;
    yield piece;
  }
  if (read < length) throw becameShorter();
}

async function* counted(
  pieces: AsyncIterable<Uint8Array>,
  told: Progress,
): AsyncGenerator<Uint8Array> {
  let bytes = 0;
  for await (const piece of pieces) {
    bytes += piece.length;
    yield piece;
    told(bytes);
  }
}

/** On the thread that asks, by node:crypto: for little, and where the product's threads were not built. */
export const sealedFilesHere: SealedFiles = {
  seal: async ({ key, first, ends }, source, { file, offset }) => {
    const plain = isStretch(source) ? bytesOf(source) : source;
    await writeStream(file, offset, sealStream(nodeChunkCipher(key), plain, first, ends));
  },
  open: async (key, from, { file, offset }, progress = () => undefined) => {
    plainSize(from.length);
    const plain = openStream(nodeChunkCipher(key), bytesOf(from));
    await writeStream(file, offset, counted(plain, progress));
  },
  close: () => Promise.resolve(),
};
