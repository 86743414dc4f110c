import { scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';
import type { RandomSource } from '@/core/base/random';
import { createFairQueue } from '@/server/limits/fair-queue';

/** RFC 7914: about 32 MiB and a twentieth of a second a hash. */
const COST: ScryptOptions = { N: 16_384, r: 16, p: 1, maxmem: 64 * 1024 * 1024 };
const KEY_BYTES = 64;
const SALT_BYTES = 16;
/** Hashes wait for one another, so that a flood of them leaves a core for everybody else. */
const BOUNDS = { atOnce: 1, atOnceEach: 1, waiting: 40, waitingEach: 8 };

export type PasswordHashes = {
  /** @throws BusyError */
  readonly make: (password: string, who: string) => Promise<string>;
  /** @throws BusyError */
  readonly verify: (hash: string, password: string, who: string) => Promise<boolean>;
  /** Takes as long as `verify`, and is never right. @throws BusyError */
  readonly verifyNone: (password: string, who: string) => Promise<false>;
};

const derive = promisify<string, string, number, ScryptOptions, Buffer>(scrypt);

/**
 * Password hashes (scrypt, `salt:key` in hexadecimal), made off the main thread; anyone who asks for
 * many waits for others in turn.
 */
export function createPasswordHashes(random: RandomSource): PasswordHashes {
  const queue = createFairQueue(BOUNDS);
  const key = (password: string, salt: string, who: string): Promise<Buffer> =>
    queue(who, () => derive(password.normalize('NFKC'), salt, KEY_BYTES, COST));
  const verify: PasswordHashes['verify'] = async (hash, password, who) => {
    const [salt = '', wanted = ''] = hash.split(':');
    const bytes = Buffer.from(wanted, 'hex');
    const found = await key(password, salt, who);
    return bytes.length === found.length && timingSafeEqual(bytes, found);
  };
  return {
    verify,
    make: async (password, who) => {
      const salt = Buffer.from(random(SALT_BYTES)).toString('hex');
      return `${salt}:${(await key(password, salt, who)).toString('hex')}`;
    },
    verifyNone: async (password, who) => {
      await key(password, 'nobody', who);
      return false;
    },
  };
}
