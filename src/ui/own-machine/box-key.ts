import { newBoxKeyPair, type BoxKeyPair } from '@/core/licence/key-box';
import { inStore } from '@/ui/own-machine/reader-store';

/** What content keys are encrypted to, where documents are read on this machine. */
const BOX = 'box';

/** This browser's key for content keys, made when it is first needed: its private half cannot be taken out. */
export async function boxKeyPair(): Promise<BoxKeyPair> {
  const known = await inStore(
    'keys',
    'readonly',
    (store) => store.get(BOX) as IDBRequest<BoxKeyPair | undefined>,
  );
  if (known !== undefined) return known;
  const made = await newBoxKeyPair();
  await inStore('keys', 'readwrite', (store) => store.put(made, BOX));
  return made;
}
