import { base64 } from '@scure/base';
import { concatBytes, equalBytes, utf8 } from '@/core/base/bytes';
import { LedgerError } from '@/core/ledger/errors';
import type { Hash } from '@/core/ledger/hash';

/**
 * A signed statement of what the ledger was at one moment, in the text form of C2SP tlog-checkpoint
 * inside a C2SP signed-note: three lines (origin, size, root), an empty line, the signature.
 */
export type Checkpoint = { readonly origin: string; readonly size: number; readonly root: Uint8Array };

export type Signer = { readonly publicKey: Uint8Array; readonly sign: (bytes: Uint8Array) => Uint8Array };
/** Verifies an Ed25519 signature (RFC 8032) under a 32-byte public key. */
export type VerifySignature = (publicKey: Uint8Array, bytes: Uint8Array, signature: Uint8Array) => boolean;

const ED25519 = Uint8Array.of(0x01);

/** signed-note key id: the first four bytes of SHA-256(name, newline, algorithm, public key). */
function keyId(name: string, publicKey: Uint8Array, hash: Hash): Uint8Array {
  return hash(`${name}\n`, ED25519, publicKey).slice(0, 4);
}

/** The checkpoint as signed text, ready to be stored, mailed or printed. */
export function signCheckpoint(checkpoint: Checkpoint, signer: Signer, hash: Hash): string {
  const body = `${checkpoint.origin}\n${String(checkpoint.size)}\n${base64.encode(checkpoint.root)}\n`;
  const signature = concatBytes(keyId(checkpoint.origin, signer.publicKey, hash), signer.sign(utf8(body)));
  return `${body}\n— ${checkpoint.origin} ${base64.encode(signature)}\n`;
}

/**
 * Reads a signed checkpoint and verifies it.
 *
 * @throws LedgerError `BAD_CHECKPOINT` where it is malformed, or not signed with this key
 */
export function openCheckpoint(text: string, publicKey: Uint8Array, hash: Hash, verify: VerifySignature): Checkpoint {
  const match = /^((.+)\n(0|[1-9]\d*)\n([A-Za-z0-9+/]{43}=)\n)\n— (.+) ([A-Za-z0-9+/=]+)\n$/.exec(text);
  if (match === null) throw new LedgerError('BAD_CHECKPOINT', 'The checkpoint is malformed.');
  const [, body = '', origin = '', size = '', root = '', name = '', encoded = ''] = match;
  const signature = base64.decode(encoded);
  const ours = name === origin && equalBytes(signature.slice(0, 4), keyId(origin, publicKey, hash));
  if (!ours || !verify(publicKey, utf8(body), signature.slice(4))) throw new LedgerError('BAD_CHECKPOINT', 'The checkpoint was not signed with this organisation’s key.');
  return { origin, size: Number(size), root: base64.decode(root) };
}

/** Checkpoints that stand in a text one after another, whatever lies between them; what they say is not trusted yet. */
export function splitCheckpoints(text: string): { readonly size: number; readonly text: string }[] {
  const found = text.replaceAll('\r\n', '\n').matchAll(/^.+\n(0|[1-9]\d*)\n[A-Za-z0-9+/]{43}=\n\n— .+ [A-Za-z0-9+/=]+$/gm);
  return Array.from(found, ([whole, size]) => ({ size: Number(size), text: `${whole}\n` }));
}
