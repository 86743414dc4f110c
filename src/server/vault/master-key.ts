import { randomBytes } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';
import { Secret } from '@/core/base/secret';
import { ConfigError } from '@/server/config/env';

type MasterKey = { readonly generation: number; readonly key: Secret<Uint8Array> };

/** The generations of the master key that there are: one, or two while keys are being wrapped anew. */
export type MasterKeys = {
  /**
   * The newest. Looked up at each call: another process may have begun a rotation. Anyone who wraps
   * with it does so inside the write transaction that stores the wrap, so that a rotation, which
   * ends with a transaction of its own, sees every wrap of an older generation.
   */
  readonly current: () => MasterKey;
  readonly find: (generation: number) => MasterKey | null;
};

const KEY_BYTES = 32;
const LINE = /^(?:([1-9]\d{0,6}) )?([A-Za-z0-9+/]{43}=)$/;

/** A line a generation, `<generation> <key in base64>`; a line without number is generation 1. */
function parse(text: string): MasterKey[] {
  const keys = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line): MasterKey => {
      const [, generation = '1', key] = LINE.exec(line) ?? [];
      if (key === undefined)
        throw new ConfigError('The master key file does not hold a key of 32 bytes in base64.');
      return {
        generation: Number(generation),
        key: new Secret(new Uint8Array(Buffer.from(key, 'base64'))),
      };
    });
  if (keys.length === 0 || new Set(keys.map(({ generation }) => generation)).size !== keys.length)
    throw new ConfigError('The master key file does not hold a key of 32 bytes in base64.');
  return keys.sort((a, b) => b.generation - a.generation);
}

function readKeys(file: string): MasterKey[] {
  if ((statSync(file).mode & 0o077) !== 0)
    throw new ConfigError(
      'The master key file can be read by others on this machine. Set its mode to 0600.',
    );
  return parse(readFileSync(file, 'utf8'));
}

function fileText(keys: readonly MasterKey[]): string {
  return keys
    .map(
      ({ generation, key }) =>
        `${String(generation)} ${Buffer.from(key.reveal()).toString('base64')}\n`,
    )
    .join('');
}

/** Replaces the file in one step: a machine that fails half way has the old file or the new one. */
function writeKeys(file: string, keys: readonly MasterKey[]): void {
  mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  const next = `${file}.next`;
  rmSync(next, { force: true });
  const handle = openSync(next, 'wx', 0o600);
  writeSync(handle, fileText(keys));
  fsyncSync(handle);
  closeSync(handle);
  renameSync(next, file);
  const folder = openSync(path.dirname(file), 'r');
  fsyncSync(folder);
  closeSync(folder);
}

function newKey(generation: number): MasterKey {
  return { generation, key: new Secret(new Uint8Array(randomBytes(KEY_BYTES))) };
}

/**
 * Opens the master key file, making it on the very first start.
 *
 * @param mayMake whether there is nothing yet that another key would be needed for
 * @throws ConfigError where the file is missing, readable by others, or holds no key
 */
export function openMasterKeys(file: string, mayMake: boolean): MasterKeys {
  if (!existsSync(file) && !mayMake)
    throw new ConfigError(
      `The master key file ${file} is missing, and the database that it opens is there. Put ` +
        'the key back; a new one would open nothing.',
    );
  if (!existsSync(file)) writeKeys(file, [newKey(1)]);
  const seen = new Map<number, MasterKey>();
  let stamp = '';
  let newest: MasterKey | undefined;
  const refresh = (): MasterKey => {
    const found = statSync(file, { throwIfNoEntry: false });
    // Gone while the server runs: it goes on with what it has read, and says so on Today.
    if (found === undefined && newest !== undefined) return newest;
    const { ino, mtimeMs, size } = found ?? statSync(file);
    const now = `${String(ino)} ${String(mtimeMs)} ${String(size)}`;
    if (now !== stamp || newest === undefined) {
      const keys = readKeys(file);
      // What was read once stays known: rows read before a rotation ended are still under it.
      for (const key of keys) seen.set(key.generation, key);
      newest = keys[0] ?? newKey(1);
      stamp = now;
    }
    return newest;
  };
  refresh();
  return {
    current: refresh,
    find: (generation) => {
      if (!seen.has(generation)) refresh();
      return seen.get(generation) ?? null;
    },
  };
}

/**
 * Begins a rotation by adding a generation, or goes on with one that was cut off. To be called
 * inside a write transaction, which keeps other processes from doing the same at once.
 *
 * @returns the generation that everything is to be wrapped under
 */
export function beginGeneration(file: string): number {
  const keys = readKeys(file);
  const newest = keys[0]?.generation ?? 0;
  if (keys.length > 1) return newest;
  writeKeys(file, [newKey(newest + 1), ...keys]);
  return newest + 1;
}

/**
 * Forgets every generation but this one. To be called once nothing is wrapped under another, inside
 * a write transaction.
 */
export function keepOnlyGeneration(file: string, generation: number): void {
  writeKeys(
    file,
    readKeys(file).filter((key) => key.generation === generation),
  );
}

/** Every generation that stands in either of two states of the key file, as the text of one. */
export function mergeKeyFiles(before: string, after: string): string {
  const keys = new Map([...parse(before), ...parse(after)].map((key) => [key.generation, key]));
  return fileText([...keys.values()]);
}
