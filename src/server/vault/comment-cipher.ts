import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { utf8 } from '@/core/base/bytes';

const ALGORITHM = 'aes-256-gcm';
const NONCE = 12;
const TAG = 16;
const KEY = 32;

/** The key of a version's comments, which follows from that of its content (RFC 5869): it ends with it. */
function keyOf(payloadKey: Uint8Array): Uint8Array {
  return new Uint8Array(hkdfSync('sha256', payloadKey, new Uint8Array(0), 'embargo comments', KEY));
}

/** What a comment says, sealed for its id alone: moved to another one it does not open. */
export function sealComment(payloadKey: Uint8Array, id: string, text: string): Buffer {
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv(ALGORITHM, keyOf(payloadKey), nonce).setAAD(utf8(id));
  return Buffer.concat([nonce, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]);
}

/** @returns null where it was altered, moved, or sealed under another key */
export function openComment(payloadKey: Uint8Array, id: string, sealed: Buffer): string | null {
  if (sealed.length < NONCE + TAG) return null;
  const decipher = createDecipheriv(ALGORITHM, keyOf(payloadKey), sealed.subarray(0, NONCE))
    .setAAD(utf8(id))
    .setAuthTag(sealed.subarray(sealed.length - TAG));
  const body = sealed.subarray(NONCE, sealed.length - TAG);
  try {
    return Buffer.concat([decipher.update(body), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}
