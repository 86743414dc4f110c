import { inStore } from '@/ui/own-machine/reader-store';

const NAME = 'device';
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256' } as const;

/** Makes this browser's signing key: the private half cannot be taken out of it. @returns the public half */
export async function makeDeviceKey(): Promise<JsonWebKey> {
  const pair = await crypto.subtle.generateKey(ALGORITHM, false, ['sign', 'verify']);
  await inStore('keys', 'readwrite', (store) => store.put(pair.privateKey, NAME));
  const { kty, crv, x, y } = await crypto.subtle.exportKey('jwk', pair.publicKey);
  return { kty, crv, x, y };
}

function base64url(bytes: ArrayBuffer): string {
  return btoa(String.fromCharCode(...new Uint8Array(bytes)))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replace(/=+$/, '');
}

const NONCE_BYTES = 18;

/**
 * The header that proves a request comes from this browser: time, a number used once, and a
 * signature over these, method, path and body.
 */
export async function proofHeader(
  method: string,
  path: string,
  body: string,
): Promise<Record<string, string>> {
  const key = await inStore(
    'keys',
    'readonly',
    (store) => store.get(NAME) as IDBRequest<CryptoKey | undefined>,
  );
  if (key === undefined) return {};
  const encoder = new TextEncoder();
  const time = String(Date.now());
  const nonce = base64url(crypto.getRandomValues(new Uint8Array(NONCE_BYTES)).buffer);
  const hash = base64url(await crypto.subtle.digest('SHA-256', encoder.encode(body)));
  const signature = await crypto.subtle.sign(
    { name: 'ECDSA', hash: 'SHA-256' },
    key,
    encoder.encode([`${method} ${path}`, time, nonce, hash].join('\n')),
  );
  return { 'device-proof': `${time} ${nonce} ${base64url(signature)}` };
}
