import type { BoxKey } from '@/core/licence/key-box';
import { inStore } from '@/ui/own-machine/reader-store';

/** What content keys are encrypted to, where documents are read on this machine. */
const BOX = 'box';

type BoxKeyPair = { readonly boxKey: BoxKey; readonly privateKey: CryptoKey };

/** This browser's key for content keys, made when it is first needed: its private half cannot be taken out. */
export async function boxKeyPair(): Promise<BoxKeyPair> {
  const known = await inStore(
    'keys',
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
  await inStore('keys', 'readwrite', (store) => store.put(made, BOX));
  return made;
}
