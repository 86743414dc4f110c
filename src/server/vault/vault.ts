import {
  createCipheriv,
  createDecipheriv,
  createHmac,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  hkdfSync,
  randomBytes,
  sign,
  verify,
} from 'node:crypto';
import { utf8 } from '@/core/base/bytes';
import { AppError } from '@/core/base/errors';
import type { Secret } from '@/core/base/secret';
import type { Signer, VerifySignature } from '@/core/ledger/note';
import type { MasterKeys } from '@/server/vault/master-key';

type WrappedKey = { readonly wrapped: Buffer; readonly generation: number };

/** Keeps keys under the master key. Nothing here is written down; callers store what `wrap` returns. */
export type KeyWrap = {
  /** The generation of the master key that is wrapped with now. */
  readonly generation: () => number;
  /**
   * Wraps key bytes for one owner (a version's id, a key's name); only for that owner they unwrap.
   * Inside the transaction that stores it.
   */
  readonly wrap: (key: Uint8Array, owner: string) => WrappedKey;
  /** @throws VaultError where the wrap was altered, moved or made by another master key */
  readonly unwrap: (wrapped: WrappedKey, owner: string) => Uint8Array;
};

/**
 * Hashes and keys that follow from a secret of their own, so that a rotation of the master key
 * leaves them as they are.
 */
export type Hashes = {
  /** A keyed hash for one purpose, as hex: of codes and tokens that must not be readable in the database. */
  readonly mac: (purpose: string, text: string) => string;
  /** The same of bytes. */
  readonly macOf: (purpose: string, bytes: Uint8Array) => string;
  /** A 32-byte key for one purpose, as hex. */
  readonly derive: (purpose: string) => string;
};

export type Vault = KeyWrap & Hashes;

class VaultError extends AppError<'CANNOT_UNWRAP'> {
  constructor(cause?: unknown) {
    super('VaultError', 'CANNOT_UNWRAP', 'A stored key could not be opened with this master key.', {
      cause,
    });
  }
}

const ALGORITHM = 'aes-256-gcm';
const NONCE = 12;
const TAG = 16;

function associatedData(owner: string, generation: number): Uint8Array {
  return utf8(`embargo key wrap\n${owner}\n${String(generation)}`);
}

export function createKeyWrap(masterKeys: MasterKeys): KeyWrap {
  return {
    generation: () => masterKeys.current().generation,
    wrap: (key, owner) => {
      const { generation, key: masterKey } = masterKeys.current();
      const nonce = randomBytes(NONCE);
      const cipher = createCipheriv(ALGORITHM, masterKey.reveal(), nonce).setAAD(
        associatedData(owner, generation),
      );
      return {
        wrapped: Buffer.concat([nonce, cipher.update(key), cipher.final(), cipher.getAuthTag()]),
        generation,
      };
    },
    unwrap: ({ wrapped, generation }, owner) => {
      const masterKey = masterKeys.find(generation);
      if (masterKey === null) throw new VaultError(`no generation ${String(generation)}`);
      try {
        const decipher = createDecipheriv(
          ALGORITHM,
          masterKey.key.reveal(),
          wrapped.subarray(0, NONCE),
        )
          .setAAD(associatedData(owner, generation))
          .setAuthTag(wrapped.subarray(wrapped.length - TAG));
        return new Uint8Array(
          Buffer.concat([
            decipher.update(wrapped.subarray(NONCE, wrapped.length - TAG)),
            decipher.final(),
          ]),
        );
      } catch (cause) {
        throw new VaultError(cause);
      }
    },
  };
}

export function createHashes(secret: Secret<Uint8Array>): Hashes {
  // There are a dozen purposes, and some are asked for with every request.
  const derived = new Map<string, Buffer>();
  const derive = (purpose: string): Buffer => {
    const key =
      derived.get(purpose) ??
      Buffer.from(hkdfSync('sha256', secret.reveal(), '', `embargo ${purpose}`, 32));
    derived.set(purpose, key);
    return key;
  };
  return {
    mac: (purpose, text) => createHmac('sha256', derive(purpose)).update(text).digest('hex'),
    macOf: (purpose, bytes) => createHmac('sha256', derive(purpose)).update(bytes).digest('hex'),
    derive: (purpose) => derive(purpose).toString('hex'),
  };
}

// DER prefixes that turn 32 raw Ed25519 bytes into the keys node:crypto takes (RFC 8410 §4, §7).
const PRIVATE_PREFIX = Buffer.from('302e020100300506032b657004220420', 'hex');
const PUBLIC_PREFIX = Buffer.from('302a300506032b6570032100', 'hex');

/** A fresh Ed25519 pair: 32 raw bytes each. */
export function newSigningKey(): {
  readonly privateKey: Uint8Array;
  readonly publicKey: Uint8Array;
} {
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  return {
    privateKey: new Uint8Array(privateKey.export({ type: 'pkcs8', format: 'der' }).subarray(-32)),
    publicKey: new Uint8Array(publicKey.export({ type: 'spki', format: 'der' }).subarray(-32)),
  };
}

export function signerOf(privateKey: Uint8Array, publicKey: Uint8Array): Signer {
  const key = createPrivateKey({
    key: Buffer.concat([PRIVATE_PREFIX, privateKey]),
    format: 'der',
    type: 'pkcs8',
  });
  return { publicKey, sign: (bytes) => new Uint8Array(sign(null, bytes, key)) };
}

export const verifyEd25519: VerifySignature = (publicKey, bytes, signature) =>
  verify(
    null,
    bytes,
    createPublicKey({
      key: Buffer.concat([PUBLIC_PREFIX, publicKey]),
      format: 'der',
      type: 'spki',
    }),
    signature,
  );
