import { existsSync, mkdirSync } from 'node:fs';
import { open, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { AppError } from '@/core/base/errors';
import type { BlobStore } from '@/server/storage/blob-store';
import { writeStream } from '@/server/storage/write-stream';

export type StorageErrorCode = 'BLOB_INCOMPLETE' | 'DISK_FULL';

class StorageError extends AppError<StorageErrorCode> {
  constructor(code: StorageErrorCode, message: string, cause?: unknown) {
    super('StorageError', code, message, { cause });
  }
}

/** Blobs as files: `incoming/` while they are written, `blobs/` once they are whole. */
export function createDiskBlobStore(folder: string): BlobStore {
  const incoming = path.join(folder, 'incoming');
  const finished = path.join(folder, 'blobs');
  for (const each of [incoming, finished]) mkdirSync(each, { recursive: true, mode: 0o700 });
  const incomingPath = (key: string): string => path.join(incoming, `${key}.age`);
  const finishedPath = (key: string): string => path.join(finished, `${key}.age`);

  return {
    writeAt: async (key, offset, source) => {
      const file = await open(incomingPath(key), offset === 0 ? 'w' : 'r+', 0o600);
      try {
        // Opened to be written anew it is empty; cutting it again would have the file system write it out as soon as it is closed.
        if (offset > 0) await file.truncate(offset);
        await writeStream(file, offset, source);
      } catch (cause) {
        if (cause instanceof Error && 'code' in cause && cause.code === 'ENOSPC') throw new StorageError('DISK_FULL', 'There is no room left on the server to store this file.', cause);
        throw cause;
      } finally {
        await file.close();
      }
    },
    finish: async (key, size) => {
      // Finished before, by a process that ended before it could say so: then it need only be whole.
      const moved = !existsSync(incomingPath(key)) && existsSync(finishedPath(key));
      const file = await open(moved ? finishedPath(key) : incomingPath(key), 'r+');
      try {
        const { size: found } = await file.stat();
        if (found !== size) throw new StorageError('BLOB_INCOMPLETE', 'The stored file is not whole.');
        await file.sync();
      } finally {
        await file.close();
      }
      if (!moved) await rename(incomingPath(key), finishedPath(key));
    },
    pathOf: (key) => (existsSync(finishedPath(key)) ? finishedPath(key) : incomingPath(key)),
    remove: async (key) => {
      await rm(incomingPath(key), { force: true });
      await rm(finishedPath(key), { force: true });
    },
    sweep: async (wanted) => {
      for (const name of await readdir(incoming)) {
        const key = name.replace(/\.age$/, '');
        const whole = path.join(incoming, name);
        if (!wanted.has(key) && (await stat(whole)).isFile()) await rm(whole);
      }
    },
  };
}
