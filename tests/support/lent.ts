/** Pieces in memory that is used again, as a reader of files gives them. */
export async function* lent(bytes: Uint8Array, size: number): AsyncGenerator<Uint8Array, void> {
  const memory = Buffer.alloc(size);
  for (let at = 0; at < bytes.length; at += size) {
    const some = bytes.subarray(at, at + size);
    memory.set(some);
    yield await Promise.resolve(memory.subarray(0, some.length));
    memory.fill(0xee);
  }
}
