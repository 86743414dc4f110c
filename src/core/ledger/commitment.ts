import { bytesToHex } from '@noble/hashes/utils.js';
import { LedgerError } from '@/core/ledger/errors';
import type { Hash } from '@/core/ledger/hash';

/** Facts about a person that a record may hold, and may have to forget. */
type PersonalField = 'address' | 'name' | 'network' | 'place' | 'agent' | 'text';
export type PersonalFields = Readonly<Partial<Record<PersonalField, string>>>;

/**
 * Bytes of salt for each field of each entry: 128 bits, so that a short value cannot be guessed
 * from its commitment.
 */
export const SALT_BYTES = 16;

/**
 * What stands in the chain in place of a personal value: SHA-256(salt, field, 0, value) in hex.
 * Once salt and value are erased it says nothing, and the chain still verifies.
 */
export function commitmentOf(
  field: string,
  value: string,
  salt: Uint8Array | undefined,
  hash: Hash,
): string {
  if (salt?.length !== SALT_BYTES)
    throw new LedgerError('NOT_CANONICAL', `No salt for the personal field ${field}.`);
  return bytesToHex(hash(salt, `${field}\0${value}`));
}
