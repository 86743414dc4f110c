import { base64 } from '@scure/base';
import { concatBytes, equalBytes, utf8 } from '@/core/base/bytes';
import type { Hash } from '@/core/ledger/hash';

export type Signer = {
  readonly publicKey: Uint8Array;
  readonly sign: (bytes: Uint8Array) => Uint8Array;
};
/** Verifies an Ed25519 signature (RFC 8032) under a 32-byte public key. */
export type VerifySignature = (
  publicKey: Uint8Array,
  bytes: Uint8Array,
  signature: Uint8Array,
) => boolean;

const ED25519 = Uint8Array.of(0x01);

/** signed-note key id: the first four bytes of SHA-256(name, newline, algorithm, public key). */
function keyId(name: string, publicKey: Uint8Array, hash: Hash): Uint8Array {
  return hash(`${name}\n`, ED25519, publicKey).slice(0, 4);
}

/** A text that ends in a line break, signed in the form of a C2SP signed-note. */
export function signNote(body: string, name: string, signer: Signer, hash: Hash): string {
  const signature = concatBytes(keyId(name, signer.publicKey, hash), signer.sign(utf8(body)));
  return `${body}\n— ${name} ${base64.encode(signature)}\n`;
}

/** The text of a signed note, where this key signed it; else `null`. */
export function openNote(
  text: string,
  publicKey: Uint8Array,
  hash: Hash,
  verify: VerifySignature,
): { readonly body: string; readonly name: string } | null {
  const match = /^((?:.*\n)+)\n— (.+) ([A-Za-z0-9+/=]+)\n$/.exec(text);
  if (match === null) return null;
  const [, body = '', name = '', encoded = ''] = match;
  const signature = base64.decode(encoded);
  const isOurs = equalBytes(signature.slice(0, 4), keyId(name, publicKey, hash));
  return isOurs && verify(publicKey, utf8(body), signature.slice(4)) ? { body, name } : null;
}
