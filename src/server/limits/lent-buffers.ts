/**
 * Large pieces of memory that are used again and again: thrown away each time, they would pile up
 * faster than they are cleared.
 */
export type LentBuffers = <T>(use: (buffer: Uint8Array) => Promise<T>) => Promise<T>;

/**
 * Lends buffers of one size; as many are kept as were ever lent at once. What stood in one is
 * overwritten before it is read.
 */
export function createLentBuffers(bytes: number): LentBuffers {
  const free: Uint8Array[] = [];
  return async (use) => {
    const buffer = free.pop() ?? new Uint8Array(bytes);
    try {
      return await use(buffer);
    } finally {
      buffer.fill(0);
      free.push(buffer);
    }
  };
}
