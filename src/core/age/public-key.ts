import { bech32 } from '@scure/base';

/** Bytes of each kind of public key, by what its text begins with (age v1, "Recipients"). */
const BYTES: ReadonlyMap<string, number> = new Map([
  ['age', 32],
  ['age1pq', 1216],
  ['age1tag', 33],
  ['age1tagpq', 1249],
]);

/**
 * Whether `text` is a public key that files can be encrypted to. Said without the package that does
 * that, for which a page that only checks a form has no use.
 */
export function isPublicKey(text: string): boolean {
  const found = bech32.decodeUnsafe(text, false);
  // Upper case reads the same, and is not how a public key is written.
  if (found === undefined || !text.startsWith(found.prefix)) return false;
  const bytes = bech32.fromWordsUnsafe(found.words);
  return bytes instanceof Uint8Array && bytes.length === BYTES.get(found.prefix);
}
