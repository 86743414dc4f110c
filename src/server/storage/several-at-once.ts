/**
 * Has up to `limit` works go on at once. Over is only what none of them is at any more, however it
 * ends: a file that they write into may be closed then.
 */
export function severalAtOnce(limit: number): {
  /** Waits for a turn. @throws what one of them threw */
  readonly add: (work: () => Promise<void>) => Promise<void>;
  /** @throws what one of them threw */
  readonly over: () => Promise<void>;
} {
  const going = new Set<Promise<void>>();
  const failures: unknown[] = [];
  const needNone = (): void => {
    if (failures.length > 0) throw failures[0];
  };
  return {
    add: async (work) => {
      if (going.size >= limit) await Promise.race(going);
      needNone();
      const one = work()
        .catch((error: unknown) => {
          failures.push(error);
        })
        .finally(() => going.delete(one));
      going.add(one);
    },
    over: async () => {
      await Promise.all(going);
      needNone();
    },
  };
}
