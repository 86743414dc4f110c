import { base64 } from '@scure/base';
import { LedgerError } from '@/core/ledger/errors';
import type { Hash } from '@/core/ledger/hash';
import { openNote, signNote, type Signer, type VerifySignature } from '@/core/ledger/note';

/**
 * A signed statement of what the ledger was at one moment, in the text form of C2SP tlog-checkpoint
 * inside a C2SP signed-note: three lines (origin, size, root), an empty line, the signature.
 */
export type Checkpoint = {
  readonly origin: string;
  readonly size: number;
  readonly root: Uint8Array;
};

/** The checkpoint as signed text, ready to be stored, mailed or printed. */
export function signCheckpoint(checkpoint: Checkpoint, signer: Signer, hash: Hash): string {
  const body = `${checkpoint.origin}\n${String(checkpoint.size)}\n${base64.encode(checkpoint.root)}\n`;
  return signNote(body, checkpoint.origin, signer, hash);
}

/**
 * Reads a signed checkpoint and verifies it.
 *
 * @throws LedgerError `BAD_CHECKPOINT` where it is malformed, or not signed with this key
 */
export function openCheckpoint(
  text: string,
  publicKey: Uint8Array,
  hash: Hash,
  verify: VerifySignature,
): Checkpoint {
  const match = /^(.+)\n(0|[1-9]\d*)\n([A-Za-z0-9+/]{43}=)\n\n— .+ [A-Za-z0-9+/=]+\n$/.exec(text);
  if (match === null) throw new LedgerError('BAD_CHECKPOINT', 'The checkpoint is malformed.');
  const [, origin = '', size = '', root = ''] = match;
  if (openNote(text, publicKey, hash, verify)?.name !== origin)
    throw new LedgerError(
      'BAD_CHECKPOINT',
      'The checkpoint was not signed with this organisation’s key.',
    );
  return { origin, size: Number(size), root: base64.decode(root) };
}

/** Checkpoints that stand in a text one after another, whatever lies between them; what they say is not trusted yet. */
export function splitCheckpoints(text: string): { readonly size: number; readonly text: string }[] {
  const found = text
    .replaceAll('\r\n', '\n')
    .matchAll(/^.+\n(0|[1-9]\d*)\n[A-Za-z0-9+/]{43}=\n\n— .+ [A-Za-z0-9+/=]+$/gm);
  return Array.from(found, ([whole, size]) => ({ size: Number(size), text: `${whole}\n` }));
}
