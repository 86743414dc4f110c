import type { Database } from '@/server/db/database';

/** Something read from the database, as it stood at one generation of it. */
export type Held<T> = { readonly value: T; readonly generation: number };

/**
 * Holds what is asked for again and again, by name, for as long as nothing was changed by which
 * access is decided. What another process changed shows with the next job of the write queue: who
 * acts on what is held asks there whether the generation is still the same.
 *
 * @param most names held for each database: those asked for last
 */
export function holding<T>(
  most: number,
): (db: Database, name: string, read: () => Promise<T>) => Promise<Held<T>> {
  const of = new WeakMap<Database, Map<string, Held<T>>>();
  return async (db, name, read) => {
    const all = of.get(db) ?? new Map<string, Held<T>>();
    of.set(db, all);
    // Taken first: what is changed while this is read makes it another one.
    const generation = db.generation();
    const known = all.get(name);
    if (known?.generation === generation) return known;
    const fresh = { value: await read(), generation };
    // Put at the end again: the first is the one that was read longest ago.
    all.delete(name);
    all.set(name, fresh);
    const [oldest] = all.keys();
    if (all.size > most && oldest !== undefined) all.delete(oldest);
    return fresh;
  };
}
