// One worker of the browser's benchmark: seals and opens in memory for a second, and says how much.
import { CHUNK, TAG, openChunk, sealChunk } from '@/core/age/chunks';
import { concatBytes } from '@/core/base/bytes';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';

const cipher = (await sodiumChunkCipher())(crypto.getRandomValues(new Uint8Array(32)));
const plain = new Uint8Array(CHUNK);
const sealed = concatBytes(...sealChunk(cipher, 7, false, plain));

function rate(work: () => void): number {
  for (let i = 0; i < 50; i++) work();
  const start = performance.now();
  let done = 0;
  while (performance.now() - start < 1500) {
    work();
    done += CHUNK;
  }
  return done / (performance.now() - start) / 1000;
}

const seals = rate(() => {
  sealChunk(cipher, 7, false, plain);
});
const opens = rate(() => {
  openChunk(cipher, 7, false, sealed);
});
if (sealed.length !== CHUNK + TAG) throw new Error('a chunk of the wrong size');
self.postMessage({ seals, opens });
