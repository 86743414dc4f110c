import { hash } from 'node:crypto';
import type { Hash } from '@/core/ledger/hash';

/** SHA-256 by node:crypto. */
export const nodeHash: Hash = (...parts) => {
  const [first = new Uint8Array(0)] = parts;
  // One call for the whole is a third of the cost of a hash object, and entries are short.
  const digest = hash('sha256', parts.length < 2 ? first : Buffer.concat(parts), 'buffer');
  return new Uint8Array(digest.buffer, digest.byteOffset, digest.length);
};
