import {
  CompactEncrypt,
  compactDecrypt,
  calculateJwkThumbprint,
  errors,
  exportJWK,
  generateKeyPair,
  importJWK,
  type CryptoKey,
} from 'jose';
import { LicenceError } from '@/core/licence/statement';

/** The public half of a device's key for content keys: P-256 (RFC 7518 §6.2). */
export type BoxKey = {
  readonly kty: 'EC';
  readonly crv: 'P-256';
  readonly x: string;
  readonly y: string;
};

const ALGORITHM = 'ECDH-ES';
const ENCRYPTION = 'A256GCM';
const TYPE = 'embargo-key+jwe';
const KEY_BYTES = 16;

export type BoxKeyPair = { readonly boxKey: BoxKey; readonly privateKey: CryptoKey };

/** A key for content keys, whose private half cannot be taken out of where it was made. */
export async function newBoxKeyPair(): Promise<BoxKeyPair> {
  const pair = await generateKeyPair(ALGORITHM, { crv: 'P-256', extractable: false });
  const { x = '', y = '' } = await exportJWK(pair.publicKey);
  return { boxKey: { kty: 'EC', crv: 'P-256', x, y }, privateKey: pair.privateKey };
}

/** The thumbprint of a public key (RFC 7638), in base64url. */
export function boxThumbprint({ kty, crv, x, y }: BoxKey): Promise<string> {
  return calculateJwkThumbprint({ kty, crv, x, y });
}

/**
 * The content key of a version, for one device and one licence alone (RFC 7516, RFC 7518 §4.6).
 *
 * @throws LicenceError where the public key is none
 */
export async function boxKey(
  fileKey: Uint8Array,
  { kty, crv, x, y }: BoxKey,
  licence: string,
): Promise<string> {
  try {
    const key = await importJWK({ kty, crv, x, y }, ALGORITHM);
    return await new CompactEncrypt(fileKey)
      .setProtectedHeader({ alg: ALGORITHM, enc: ENCRYPTION, typ: TYPE, licence })
      .encrypt(key);
  } catch (cause) {
    throw new LicenceError(cause);
  }
}

/**
 * Takes the content key out again.
 *
 * @throws LicenceError where it was made for another device or licence, or was altered
 */
export async function unboxKey(
  box: string,
  privateKey: CryptoKey,
  licence: string,
): Promise<Uint8Array> {
  try {
    const { plaintext, protectedHeader } = await compactDecrypt(box, privateKey, {
      keyManagementAlgorithms: [ALGORITHM],
      contentEncryptionAlgorithms: [ENCRYPTION],
    });
    const isMeant = protectedHeader.typ === TYPE && protectedHeader['licence'] === licence;
    if (!isMeant || plaintext.length !== KEY_BYTES) throw new LicenceError('another licence');
    return plaintext;
  } catch (cause) {
    if (cause instanceof errors.JOSEError || cause instanceof DOMException)
      throw new LicenceError(cause);
    throw cause;
  }
}
