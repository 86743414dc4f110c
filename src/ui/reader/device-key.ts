import type { BoxKey } from '@/core/licence/key-box';

const DATABASE = 'embargo-reader';
const STORE = 'keys';
const NAME = 'device';
/** What content keys are encrypted to, where documents are read on this machine. */
const BOX = 'box';
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256' } as const;

function openStore(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(DATABASE, 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore(STORE);
    };
    request.onsuccess = () => {
      resolve(request.result);
    };
    request.onerror = () => {
      reject(request.error ?? new Error('no store'));
    };
  });
}

async function inStore<T>(
  mode: IDBTransactionMode,
  ask: (store: IDBObjectStore) => IDBRequest<T>,
): Promise<T> {
  const database = await openStore();
  try {
    return await new Promise<T>((resolve, reject) => {
      const request = ask(database.transaction(STORE, mode).objectStore(STORE));
      request.onsuccess = () => {
        resolve(request.result);
      };
      request.onerror = () => {
        reject(request.error ?? new Error('no key'));
      };
    });
  } finally {
    database.close();
  }
}

/** Makes this browser's signing key: the private half cannot be taken out of it. @returns the public half */
export async function makeDeviceKey(): Promise<JsonWebKey> {
  const pair = await crypto.subtle.generateKey(ALGORITHM, false, ['sign', 'verify']);
  await inStore('readwrite', (store) => store.put(pair.privateKey, NAME));
  const { kty, crv, x, y } = await crypto.subtle.exportKey('jwk', pair.publicKey);
  return { kty, crv, x, y };
}

type BoxKeyPair = { readonly boxKey: BoxKey; readonly privateKey: CryptoKey };

/** This browser's key for content keys, made when it is first needed: its private half cannot be taken out. */
export async function boxKeyPair(): Promise<BoxKeyPair> {
  const known = await inStore(
    'readonly',
    (store) => store.get(BOX) as IDBRequest<BoxKeyPair | undefined>,
  );
  if (known !== undefined) return known;
  const pair = await crypto.subtle.generateKey({ name: 'ECDH', namedCurve: 'P-256' }, false, [
    'deriveBits',
  ]);
  const { x = '', y = '' } = await crypto.subtle.exportKey('jwk', pair.publicKey);
  const made: BoxKeyPair = {
    boxKey: { kty: 'EC', crv: 'P-256', x, y },
    privateKey: pair.privateKey,
  };
  await inStore('readwrite', (store) => store.put(made, BOX));
  return made;
}

export async function forgetDeviceKey(): Promise<void> {
  await inStore('readwrite', (store) => store.clear());
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
