import { createReadStream, existsSync, mkdirSync, type Stats } from 'node:fs';
import { open, readdir, rename, rm, stat, statfs, type FileHandle } from 'node:fs/promises';
import path from 'node:path';
import type { BlobStore } from '@/server/storage/blob-store';
import { noRoom, notWhole } from '@/server/storage/storage-error';
import { sealedFilesHere, type SealedFiles } from '@/server/storage/sealed-files';
import { writeStream } from '@/server/storage/write-stream';

/** What is never filled by contents: revoking, the ledger and the mail's state need room to go on. */
export const RESERVE = 256 * 1024 * 1024;

/** What is asked of the file system. */
export type Disk = {
  readonly open: (file: string, flags: string, mode?: number) => Promise<FileHandle>;
  readonly rename: (from: string, to: string) => Promise<void>;
  readonly rm: (file: string, options: { readonly force: boolean }) => Promise<void>;
  readonly readdir: (folder: string) => Promise<string[]>;
  readonly stat: (file: string) => Promise<Stats>;
  /** Bytes that can still be written in a folder. */
  readonly free: (folder: string) => Promise<number>;
};

export const realDisk: Disk = {
  open,
  rename,
  rm,
  stat,
  readdir: (folder) => readdir(folder),
  free: async (folder) => {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  },
};

/** Has a folder's entries, the names of files in it, last through a power cut. */
async function syncFolder(disk: Disk, folder: string): Promise<void> {
  const handle = await disk.open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

const READ_AT_ONCE = 1 << 19;

/** Blobs as files: `incoming/` while they are written, `blobs/` once they are whole. */
export function createDiskBlobStore(
  folder: string,
  disk: Disk = realDisk,
  files: Pick<SealedFiles, 'seal'> = sealedFilesHere,
): BlobStore {
  const incoming = path.join(folder, 'incoming');
  const finished = path.join(folder, 'blobs');
  for (const each of [incoming, finished]) mkdirSync(each, { recursive: true, mode: 0o700 });
  const incomingPath = (key: string): string => path.join(incoming, `${key}.age`);
  const finishedPath = (key: string): string => path.join(finished, `${key}.age`);
  const pathOf = (key: string): string =>
    existsSync(finishedPath(key)) ? finishedPath(key) : incomingPath(key);

  const fill = async (
    key: string,
    offset: number,
    write: (file: FileHandle) => Promise<unknown>,
  ): Promise<void> => {
    const file = await disk.open(incomingPath(key), offset === 0 ? 'w' : 'r+', 0o600);
    try {
      // Opened to be written anew it is empty; cutting it again would have the file system write
      // it out as soon as it is closed.
      if (offset > 0) await file.truncate(offset);
      await write(file);
      // Answered as received is what a power cut cannot take back.
      await file.sync();
    } catch (cause) {
      throw cause instanceof Error && 'code' in cause && cause.code === 'ENOSPC'
        ? noRoom(cause)
        : cause;
    } finally {
      await file.close();
    }
    if (offset === 0) await syncFolder(disk, incoming);
  };

  return {
    writeAt: (key, offset, source) =>
      fill(key, offset, (file) => writeStream(file, offset, source)),
    sealAt: (key, offset, payload, source) =>
      fill(key, offset, (file) => files.seal(payload, source, { file, offset })),
    finish: async (key, size) => {
      // Finished before, by a process that ended before it could say so: then it need only be whole.
      const moved = !existsSync(incomingPath(key)) && existsSync(finishedPath(key));
      const file = await disk.open(moved ? finishedPath(key) : incomingPath(key), 'r+');
      try {
        const { size: found } = await file.stat();
        if (found !== size) throw notWhole();
        await file.sync();
      } finally {
        await file.close();
      }
      if (!moved) await disk.rename(incomingPath(key), finishedPath(key));
      for (const each of [finished, incoming]) await syncFolder(disk, each);
    },
    sizeOf: async (key) => {
      const found = await disk.stat(pathOf(key)).catch(() => null);
      return found?.size ?? null;
    },
    read: (key, range) =>
      createReadStream(pathOf(key), {
        highWaterMark: READ_AT_ONCE,
        ...(range === undefined
          ? {}
          : { start: range.offset, end: range.offset + range.length - 1 }),
      }),
    placeOf: (key) => ({ in: 'file', path: pathOf(key) }),
    remove: async (key) => {
      await disk.rm(incomingPath(key), { force: true });
      await disk.rm(finishedPath(key), { force: true });
    },
    sweep: async (wanted) => {
      for (const name of await disk.readdir(incoming)) {
        const key = name.replace(/\.age$/, '');
        const whole = path.join(incoming, name);
        if (!wanted.has(key) && (await disk.stat(whole)).isFile())
          await disk.rm(whole, { force: true });
      }
    },
    needRoom: async (bytes) => {
      if ((await disk.free(folder)) < bytes + RESERVE) throw noRoom();
    },
  };
}
