import { createHash, createPublicKey, verify, type KeyObject } from 'node:crypto';
import { MINUTE } from '@/core/base/time';

/** How far a proof's time may be off, either way. */
const PROOF_LASTS = 2 * MINUTE;
const NONCE = /^[0-9a-zA-Z_-]{16,64}$/;
/** So many proofs are remembered before those that are over are dropped. */
const MOST = 20_000;

/** Answers whether a proof is used for the first time. */
export type ProofsUsed = (device: string, nonce: string, now: number) => boolean;

/** Remembers which proofs were used, for as long as they could be used again. */
export function createProofsUsed(): ProofsUsed {
  const used = new Map<string, number>();
  return (device, nonce, now) => {
    if (used.size > MOST) for (const [key, until] of used) if (until < now) used.delete(key);
    const key = `${device} ${nonce}`;
    if (used.has(key)) return false;
    // A proof may be made as far ahead as behind.
    used.set(key, now + 2 * PROOF_LASTS);
    return true;
  };
}

function importKey({ x = '', y = '' }: JsonWebKey): KeyObject | null {
  try {
    return createPublicKey({ key: { kty: 'EC', crv: 'P-256', x, y }, format: 'jwk' });
  } catch {
    return null;
  }
}

/** Keys that are held ready: a reader asks for page after page with the same one. */
const MOST_KEYS = 2_000;
const keys = new Map<string, KeyObject | null>();

function keyOf(key: JsonWebKey): KeyObject | null {
  const name = `${key.x ?? ''} ${key.y ?? ''}`;
  const known = keys.get(name) ?? importKey(key);
  // Put at the end again: the first is the one that was used longest ago.
  keys.delete(name);
  keys.set(name, known);
  const [oldest] = keys.keys();
  if (keys.size > MOST_KEYS && oldest !== undefined) keys.delete(oldest);
  return known;
}

/** Whether this is a point on the curve, which signatures can be checked with. */
export function isDeviceKey(key: JsonWebKey): boolean {
  return importKey(key) !== null;
}

/**
 * Whether a request was signed with the key of a device: `Device-Proof: <time> <nonce>
 * <signature>`, ECDSA P-256 with SHA-256 over method, path and query, time, nonce, and the SHA-256
 * of the body. Each holds once, for some minutes.
 *
 * @param body what was read of it, which is JSON or nothing: a file that is sent is not covered
 */
export function isProven(
  request: Request,
  body: string,
  device: { readonly id: string; readonly publicKey: JsonWebKey },
  isFirst: ProofsUsed,
  now: number,
): boolean {
  const [time = '', nonce = '', signature = ''] = (request.headers.get('device-proof') ?? '').split(
    ' ',
  );
  if (!(Math.abs(now - Number(time)) < PROOF_LASTS) || !NONCE.test(nonce)) return false;
  const key = keyOf(device.publicKey);
  if (key === null) return false;
  const url = new URL(request.url);
  const signed = [
    `${request.method} ${url.pathname}${url.search}`,
    time,
    nonce,
    createHash('sha256').update(body).digest('base64url'),
  ].join('\n');
  // At once: handing it to another thread and back takes longer than checking it.
  const valid = verify(
    'sha256',
    Buffer.from(signed),
    { key, dsaEncoding: 'ieee-p1363' },
    Buffer.from(signature, 'base64url'),
  );
  // Counted only once it is known to be theirs: nobody else can use up a nonce.
  return valid && isFirst(device.id, nonce, now);
}
