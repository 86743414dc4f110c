import { MINUTE } from '@/core/base/time';
import type { LicenceId } from '@/core/base/ids';

/**
 * Payload keys of the documents that are open right now, in memory only, so that the vault is asked
 * once an open and not once a page.
 */
export type Keyring = {
  readonly find: (licence: LicenceId) => Uint8Array | null;
  readonly hold: (licence: LicenceId, key: Uint8Array) => void;
  /** Forgets every key; whoever may go on reading has it taken from the vault again. */
  readonly clear: () => void;
};

const IDLE = 15 * MINUTE;
const MOST = 5_000;

export function createKeyring(now: () => number): Keyring {
  const held = new Map<LicenceId, { readonly key: Uint8Array; readonly usedAt: number }>();
  return {
    clear: () => { held.clear(); },
    find: (licence) => {
      const found = held.get(licence);
      held.delete(licence);
      if (found === undefined || now() - found.usedAt > IDLE) return null;
      held.set(licence, { key: found.key, usedAt: now() });
      return found.key;
    },
    hold: (licence, key) => {
      held.set(licence, { key, usedAt: now() });
      const [oldest] = held.keys();
      if (held.size > MOST && oldest !== undefined) held.delete(oldest);
    },
  };
}
