import { Decrypter, Encrypter, armor } from 'age-encryption';
import { AppError } from '@/core/base/errors';
import { fromUtf8, utf8 } from '@/core/base/bytes';

/** A key file that holds no key, or does not open. */
export class IdentityError extends AppError<'NO_IDENTITY' | 'WRONG_PASSPHRASE'> {
  constructor(code: 'NO_IDENTITY' | 'WRONG_PASSPHRASE', message: string) {
    super('IdentityError', code, message);
  }
}

const ARMORED = '-----BEGIN AGE ENCRYPTED FILE-----';
const BARE = 'age-encryption.org/v1';
/** Two people's passphrases lie one inside the other; more is no key of ours. */
const DEEPEST = 4;

/**
 * Keeps the text of a key file under passphrases, one inside the other, as armored age files (scrypt):
 * every one of them is needed to open it, the last one first.
 *
 * @param workFactor scrypt's cost as a power of two
 */
export async function lockIdentity(
  text: string,
  passphrases: readonly string[],
  workFactor = 18,
): Promise<string> {
  let locked = text;
  for (const passphrase of passphrases) {
    const encrypter = new Encrypter();
    encrypter.setPassphrase(passphrase);
    encrypter.setScryptWorkFactor(workFactor);
    locked = armor.encode(await encrypter.encrypt(utf8(locked)));
  }
  return locked;
}

async function openLayer(content: Uint8Array, passphrase: string): Promise<Uint8Array> {
  const decrypter = new Decrypter();
  decrypter.addPassphrase(passphrase);
  try {
    return await decrypter.decrypt(content);
  } catch {
    throw new IdentityError('WRONG_PASSPHRASE', 'That passphrase does not open this key.');
  }
}

/** The age file in the content, where it is locked; `null` where it is plain text. */
function lockedIn(content: Uint8Array): Uint8Array | null {
  const text = fromUtf8(content);
  if (text.startsWith(BARE)) return content;
  if (!text.trimStart().startsWith(ARMORED)) return null;
  try {
    return armor.decode(text);
  } catch {
    throw new IdentityError('NO_IDENTITY', 'This key file is not whole.');
  }
}

/** Whether a key file is kept under a passphrase. */
export function isLocked(content: Uint8Array): boolean {
  return lockedIn(content) !== null;
}

/**
 * The private key in a key file: lines beginning with # are remarks. A file kept under passphrases
 * is opened with what `passphraseOf` says, layer by layer.
 *
 * @throws IdentityError
 */
export async function openIdentity(
  content: Uint8Array,
  passphraseOf: (layer: number) => Promise<string>,
): Promise<string> {
  let opened = content;
  for (let layer = 0; layer < DEEPEST; layer++) {
    const locked = lockedIn(opened);
    if (locked === null) {
      const found = fromUtf8(opened)
        .split('\n')
        .map((line) => line.trim())
        .find((line) => line.startsWith('AGE-SECRET-KEY-'));
      if (found !== undefined) return found;
      break;
    }
    opened = await openLayer(locked, await passphraseOf(layer));
  }
  throw new IdentityError(
    'NO_IDENTITY',
    'This holds no private key: a line that begins with AGE-SECRET-KEY-.',
  );
}
