import { createHash } from 'node:crypto';
import type { Hash } from '@/core/ledger/hash';

/** SHA-256 by node:crypto. */
export const nodeHash: Hash = (...parts) => {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part);
  return new Uint8Array(hash.digest());
};
