import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { open, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Disk } from '@/server/storage/disk-blob-store';

/**
 * A disk that keeps, through a power cut, what was synced and nothing else: the bytes of a file as
 * of its last sync, and the names in a folder as of its. `failAt`: the operation, counted from now,
 * at which the power goes.
 */
export function createUnsyncedDisk(folders: readonly string[]): {
  readonly disk: Disk;
  readonly cut: () => void;
  readonly failAt: (operation: number) => void;
  readonly operations: () => number;
} {
  /** By file number in its folder: the bytes that last. */
  const bytes = new Map<number, Buffer>();
  /** By folder: which name stands for which file, as it lasts. */
  const names = new Map<string, Map<string, number>>(folders.map((folder) => [folder, new Map()]));
  let count = 0;
  let limit = Infinity;
  const step = (): void => {
    count++;
    if (count > limit) throw new Error('the power is gone');
  };
  const inode = async (file: string): Promise<number> => (await stat(file)).ino;
  const noteNames = async (folder: string): Promise<void> => {
    const here = new Map<string, number>();
    for (const name of await readdir(folder)) here.set(name, await inode(path.join(folder, name)));
    names.set(folder, here);
  };
  return {
    operations: () => count,
    failAt: (operation) => {
      limit = count + operation;
    },
    cut: () => {
      limit = Infinity;
      for (const folder of folders) {
        const lasting = [...(names.get(folder) ?? [])];
        for (const name of existsSync(folder) ? readdirSync(folder) : [])
          rmSync(path.join(folder, name), { recursive: true });
        mkdirSync(folder, { recursive: true });
        for (const [name, number] of lasting)
          writeFileSync(path.join(folder, name), bytes.get(number) ?? Buffer.alloc(0));
      }
      // The files have other numbers now.
      bytes.clear();
      names.clear();
    },
    disk: {
      rename: async (from, to) => {
        step();
        await rename(from, to);
      },
      rm: async (file, options) => {
        step();
        await rm(file, options);
      },
      readdir,
      stat,
      free: () => Promise.resolve(Number.MAX_SAFE_INTEGER),
      open: async (file, flags, mode) => {
        step();
        const handle = await open(file, flags, mode);
        const isFolder = folders.includes(file);
        return new Proxy(handle, {
          get: (target, name) => {
            if (name === 'sync')
              return async () => {
                step();
                if (isFolder) await noteNames(file);
                else bytes.set(await inode(file), readFileSync(file));
              };
            if (name === 'writev')
              return async (...args: Parameters<typeof target.writev>) => {
                step();
                return target.writev(...args);
              };
            const value: unknown = Reflect.get(target, name);
            return typeof value === 'function' ? (value.bind(target) as unknown) : value;
          },
        });
      },
    },
  };
}
