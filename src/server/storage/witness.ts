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
import { parseWitnessLine } from '@/core/ledger/witness-line';

/**
 * What a witness keeps outside the database: the key that signs the ledger, each signed checkpoint,
 * and where a restore went back to. A file that is only ever added to, best on another disk or
 * another machine: anyone who can write to the database and not to this file changes nothing behind
 * the last checkpoint in it unseen.
 */
export type Witnessed = {
  readonly publicKey: Uint8Array | null;
  readonly checkpoints: readonly { readonly size: number; readonly text: string }[];
};

export type Witness = {
  readonly read: () => Witnessed;
  /** The size that the newest checkpoint in it covers. */
  readonly last: () => number;
  readonly begin: (publicKey: Uint8Array) => void;
  readonly add: (checkpoints: readonly { readonly size: number; readonly text: string }[]) => void;
  /** After a restore the ledger goes on from an earlier entry: what was signed behind it is of no ledger any more. */
  readonly goBack: (size: number) => void;
};

/** Reads such a file, wherever it was kept. */
export function readWitness(file: string): Witnessed {
  let publicKey: Uint8Array | null = null;
  let checkpoints: { size: number; text: string }[] = [];
  for (const text of readFileSync(file, 'utf8').split('\n')) {
    const each = parseWitnessLine(text);
    if (each === null) continue;
    if ('key' in each) publicKey ??= new Uint8Array(Buffer.from(each.key, 'base64'));
    else if ('text' in each) checkpoints.push(each);
    else checkpoints = checkpoints.filter(({ size }) => size <= each.restoredTo);
  }
  return { publicKey, checkpoints };
}

export function createWitness(file: string): Witness {
  const nothing: Witnessed = { publicKey: null, checkpoints: [] };
  const read = (): Witnessed => (existsSync(file) ? readWitness(file) : nothing);
  const largest = ({ checkpoints }: Witnessed): number =>
    checkpoints.reduce((most, { size }) => Math.max(most, size), 0);
  let last = largest(read());
  const append = (lines: readonly unknown[]): void => {
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    const handle = openSync(file, 'a', 0o600);
    // A new line first: one that a power cut left unfinished then spoils no other.
    writeSync(handle, `\n${lines.map((each) => JSON.stringify(each)).join('\n')}\n`);
    fsyncSync(handle);
    closeSync(handle);
  };
  return {
    read,
    last: () => last,
    begin: (publicKey) => {
      append([{ key: Buffer.from(publicKey).toString('base64') }]);
    },
    add: (checkpoints) => {
      if (checkpoints.length === 0) return;
      append(checkpoints.map(({ size, text }) => ({ size, text })));
      last = checkpoints.reduce((most, { size }) => Math.max(most, size), last);
    },
    goBack: (size) => {
      append([{ restoredTo: size }]);
      last = largest(read());
    },
  };
}
