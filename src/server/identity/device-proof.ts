import { createHash, webcrypto } from 'node:crypto';
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

const algorithm = { name: 'ECDSA', namedCurve: 'P-256' } as const;

function importKey(key: JsonWebKey): Promise<webcrypto.CryptoKey | null> {
  return webcrypto.subtle.importKey('jwk', key, algorithm, false, ['verify']).catch(() => null);
}

/** Keys that are held ready: a reader asks for page after page with the same one. */
const MOST_KEYS = 1_000;
const keys = new Map<string, Promise<webcrypto.CryptoKey | null>>();

function keyOf(key: JsonWebKey): Promise<webcrypto.CryptoKey | null> {
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
export async function isDeviceKey(key: JsonWebKey): Promise<boolean> {
  return (await importKey(key)) !== null;
}

/**
 * Whether a request was signed with the key of a device: `Device-Proof: <time> <nonce>
 * <signature>`, ECDSA P-256 with SHA-256 over method, path and query, time, nonce, and the SHA-256
 * of the body. Each holds once, for some minutes.
 *
 * @param body what was read of it, which is JSON or nothing: a file that is sent is not covered
 */
export async function isProven(
  request: Request,
  body: string,
  device: { readonly id: string; readonly publicKey: JsonWebKey },
  isFirst: ProofsUsed,
  now: number,
): Promise<boolean> {
  const [time = '', nonce = '', signature = ''] = (request.headers.get('device-proof') ?? '').split(
    ' ',
  );
  if (!(Math.abs(now - Number(time)) < PROOF_LASTS) || !NONCE.test(nonce)) return false;
  const key = await keyOf(device.publicKey);
  if (key === null) return false;
  const url = new URL(request.url);
  const signed = [
    `${request.method} ${url.pathname}${url.search}`,
    time,
    nonce,
    createHash('sha256').update(body).digest('base64url'),
  ].join('\n');
  const valid = await webcrypto.subtle.verify(
    { name: 'ECDSA', hash: 'SHA-256' },
    key,
    Buffer.from(signature, 'base64url'),
    Buffer.from(signed),
  );
  // Counted only once it is known to be theirs: nobody else can use up a nonce.
  return valid && isFirst(device.id, nonce, now);
}
