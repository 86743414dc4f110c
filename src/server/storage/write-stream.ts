import type { FileHandle } from 'node:fs/promises';
import { syncBehind, type Syncs } from '@/server/storage/sync-behind';

/** Written at once, so that small pieces do not each cost a system call. */
const WRITE_BATCH = 1 << 20;

type Writes = Pick<FileHandle, 'writev'>;

/**
 * Writes the pieces of a stream one after another from `offset` on. The source goes on with its
 * next pieces while the last batch is being written, so it must not use the memory of a piece
 * again. Most of it is on the disk by the end; whoever needs all of it there syncs the file.
 *
 * @returns bytes written
 * @throws an error with the code `ENOSPC` where a write falls short; whatever the disk or the
 * source throws
 */
export async function writeStream(
  file: Writes & Syncs,
  offset: number,
  source: AsyncIterable<Uint8Array>,
): Promise<number> {
  let at = offset;
  let batch: Uint8Array[] = [];
  let size = 0;
  let writing: Promise<void> = Promise.resolve();
  const behind = syncBehind(file);
  const flush = async (): Promise<void> => {
    await writing;
    writing = writeParts(file, batch, at);
    // An error is thrown by the next await; without a handler of its own it would be unhandled until then.
    writing.catch(() => undefined);
    behind.wrote(size);
    at += size;
    batch = [];
    size = 0;
  };
  try {
    for await (const piece of source) {
      batch.push(piece);
      size += piece.length;
      if (size >= WRITE_BATCH) await flush();
    }
    if (size > 0) await flush();
  } finally {
    // Nothing may be written any more once the caller closes the file.
    await writing.catch(() => undefined);
    await behind.done().catch(() => undefined);
  }
  await writing;
  await behind.done();
  return at - offset;
}

/** Writes parts side by side at `offset`. @throws an error with the code `ENOSPC` where the write falls short */
async function writeParts(
  file: Writes,
  parts: readonly Uint8Array[],
  offset: number,
): Promise<void> {
  const wanted = parts.reduce((sum, part) => sum + part.length, 0);
  const { bytesWritten } = await file.writev([...parts], offset);
  if (bytesWritten !== wanted)
    throw Object.assign(new Error('a write fell short'), { code: 'ENOSPC' });
}
