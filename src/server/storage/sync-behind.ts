import type { FileHandle } from 'node:fs/promises';

/** So much is written before the disk is asked to take it in, in bytes, beside what is written next. */
const SYNC_EVERY = 8 << 20;

export type Syncs = Pick<FileHandle, 'datasync'>;

/** Has the disk take in what was written while more is: what is left for the last sync is little. */
export function syncBehind(file: Syncs): {
  readonly wrote: (bytes: number) => void;
  /** Throws what a sync threw: the system tells of it once, and the last one would not know. */
  readonly done: () => Promise<void>;
} {
  let since = 0;
  let isSyncing = false;
  let last: Promise<void> = Promise.resolve();
  return {
    wrote: (bytes) => {
      since += bytes;
      if (since < SYNC_EVERY || isSyncing) return;
      since = 0;
      isSyncing = true;
      // After one that failed no other is asked for.
      last = last
        .then(() => file.datasync())
        .finally(() => {
          isSyncing = false;
        });
      last.catch(() => undefined);
    },
    done: () => last,
  };
}
