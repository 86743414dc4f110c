import { open, rename, rm, type FileHandle } from 'node:fs/promises';
import { AppError } from '@/core/base/errors';
import { writeStream } from '@/server/storage/write-stream';

/** A file could not be written; the message says why. */
export class OutputError extends AppError<'DISK_FULL' | 'CANNOT_WRITE'> {
  constructor(path: string, cause: unknown) {
    const code = cause instanceof Error && 'code' in cause ? String(cause.code) : '';
    const full = code === 'ENOSPC' || code === 'EFBIG' || code === 'EDQUOT';
    super(
      'OutputError',
      full ? 'DISK_FULL' : 'CANNOT_WRITE',
      full
        ? `There is no room left to write ${path}. Nothing was left behind.`
        : `${path} could not be written (${code === '' ? 'unknown reason' : code}).`,
      { cause },
    );
  }
}

function isSystemError(error: unknown): boolean {
  return error instanceof Error && !(error instanceof AppError) && 'code' in error;
}

/**
 * Has a file written under another name and gives it its own once it is whole and on the disk: what
 * bears the name is never half of something.
 *
 * @throws OutputError where the disk says no; whatever `fill` throws
 */
export async function makeWhole<T>(
  path: string,
  fill: (file: FileHandle) => Promise<T>,
): Promise<T> {
  const partial = `${path}.partial`;
  let file: FileHandle | undefined;
  try {
    file = await open(partial, 'w', 0o600);
    const result = await fill(file);
    await file.sync();
    await file.close();
    await rename(partial, path);
    return result;
  } catch (error) {
    await file?.close().catch(() => undefined);
    await rm(partial, { force: true });
    throw isSystemError(error) ? new OutputError(path, error) : error;
  }
}

/** Writes pieces one after another, whole or not at all. @returns bytes written */
export function writeWhole(path: string, pieces: AsyncIterable<Uint8Array>): Promise<number> {
  return makeWhole(path, (file) => writeStream(file, 0, pieces));
}
