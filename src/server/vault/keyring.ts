import { MINUTE } from '@/core/base/time';
import type { LicenceId, StaffId, VersionId } from '@/core/base/ids';

/** What keeps a document open: a reader's licence, or a member of staff who checks a version. */
export type OpenName = LicenceId | `check ${StaffId} ${VersionId}`;

/**
 * Payload keys of the documents that are open right now, in memory only, so that the vault is asked
 * once an open and not once a page.
 */
export type Keyring = {
  readonly find: (open: OpenName) => Uint8Array | null;
  readonly hold: (open: OpenName, key: Uint8Array) => void;
  /** Forgets every key; anyone who may go on reading has it taken from the vault again. */
  readonly clear: () => void;
};

const IDLE = 15 * MINUTE;
const MOST = 5_000;

export function createKeyring(now: () => number): Keyring {
  const held = new Map<OpenName, { readonly key: Uint8Array; readonly usedAt: number }>();
  return {
    clear: () => {
      held.clear();
    },
    find: (open) => {
      const found = held.get(open);
      held.delete(open);
      if (found === undefined || now() - found.usedAt > IDLE) return null;
      held.set(open, { key: found.key, usedAt: now() });
      return found.key;
    },
    hold: (open, key) => {
      held.set(open, { key, usedAt: now() });
      const [oldest] = held.keys();
      if (held.size > MOST && oldest !== undefined) held.delete(oldest);
    },
  };
}
