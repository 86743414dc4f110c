import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';
import { endingLine, parseEnding, type Ending } from '@/core/ledger/endings';

/** The list of what ended, kept outside the database and its backups: a file that is only ever added to. */
export type EndedList = {
  readonly add: (endings: readonly Ending[]) => void;
  /** The ledger's sequence up to which it was kept; 0 where it is new. */
  readonly keptUpTo: () => number;
  /** Goes on from an earlier entry, where the database was put back to one. */
  readonly goBack: (sequence: number) => void;
};

/** How far lines in the order they were written have come. */
function reached(lines: readonly Ending[]): number {
  return lines.reduce(
    (most, { of, sequence }) => (of === 'position' ? sequence : Math.max(most, sequence)),
    0,
  );
}

/** Every line of such a file that can be read. */
export function readEndings(file: string): Ending[] {
  return readFileSync(file, 'utf8')
    .split('\n')
    .map(parseEnding)
    .filter((ending) => ending !== null);
}

export function createEndedList(file: string): EndedList {
  let upTo = existsSync(file) ? reached(readEndings(file)) : 0;
  const append = (endings: readonly Ending[]): void => {
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    const handle = openSync(file, 'a', 0o600);
    // A new line first: one that a power cut left unfinished then spoils no other. Empty lines are skipped.
    writeSync(handle, `\n${endings.map(endingLine).join('')}`);
    fsyncSync(handle);
    closeSync(handle);
  };
  return {
    keptUpTo: () => upTo,
    add: (endings) => {
      if (endings.length === 0) return;
      append(endings);
      upTo = endings.reduce((most, { sequence }) => Math.max(most, sequence), upTo);
    },
    goBack: (sequence) => {
      append([{ of: 'position', sequence }]);
      upTo = sequence;
    },
  };
}
