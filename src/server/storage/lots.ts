import { CHUNK } from '@/core/age/chunks';
import { LOT, SEALED } from '@/server/storage/sealing-task';

/** Plain bytes of a lot. */
export const PLAIN_LOT = LOT * CHUNK;

/** Plain chunks that came by a stream, each at the place of a sealed one, in memory that threads share. */
export type Lot = { readonly memory: Uint8Array; readonly bytes: number; readonly isLast: boolean };

/** Copies a stream into lots, each full but for the last. A piece of it may be lent. */
export async function* inLots(
  source: AsyncIterable<Uint8Array>,
  memoryOf: () => Uint8Array,
): AsyncGenerator<Lot, void> {
  let memory = memoryOf();
  let bytes = 0;
  for await (const piece of source) {
    for (let at = 0; at < piece.length;) {
      // Given out once something follows it, for it might be the last.
      if (bytes === PLAIN_LOT) {
        yield { memory, bytes, isLast: false };
        memory = memoryOf();
        bytes = 0;
      }
      const within = bytes % CHUNK;
      const some = piece.subarray(at, at + CHUNK - within);
      memory.set(some, (bytes / CHUNK - within / CHUNK) * SEALED + within);
      at += some.length;
      bytes += some.length;
    }
  }
  yield { memory, bytes, isLast: true };
}

/** The chunks of a lot, one after another. */
export async function* chunksOf({ memory, bytes }: Lot): AsyncGenerator<Uint8Array, void> {
  for (let at = 0; at < bytes; at += CHUNK) {
    const start = (at / CHUNK) * SEALED;
    yield await Promise.resolve(memory.subarray(start, start + Math.min(CHUNK, bytes - at)));
  }
}

/** Memory of lots that threads share, kept for the next: what stood in it is sealed by then. */
export function createLotMemory(kept: number): {
  readonly take: () => Uint8Array;
  readonly giveBack: (memory: Uint8Array) => void;
} {
  const free: Uint8Array[] = [];
  return {
    take: () => free.pop() ?? new Uint8Array(new SharedArrayBuffer(LOT * SEALED)),
    giveBack: (memory) => {
      if (free.length < kept) free.push(memory);
    },
  };
}
