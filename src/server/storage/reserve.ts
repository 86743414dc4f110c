import { closeSync, existsSync, fsyncSync, openSync, rmSync, writeSync } from 'node:fs';

const BYTES = 16 * 1024 * 1024;
const PIECE = Buffer.alloc(1 << 20, 1);

/**
 * Room that is kept for the day the disk is full: given up, it lets revocations, the ledger and the
 * mail's state go on for a while.
 */
export type Reserve = {
  /** Takes the room, where it is not held yet. */
  readonly take: () => void;
  /** Gives it up. @returns whether there was any to give */
  readonly giveUp: () => boolean;
};

export function createReserve(file: string): Reserve {
  return {
    take: () => {
      if (existsSync(file)) return;
      const handle = openSync(file, 'w', 0o600);
      try {
        for (let at = 0; at < BYTES; at += PIECE.length) writeSync(handle, PIECE);
        fsyncSync(handle);
      } finally {
        closeSync(handle);
      }
    },
    giveUp: () => {
      if (!existsSync(file)) return false;
      rmSync(file);
      return true;
    },
  };
}
