import type { Reading, Transaction } from '@/server/db/database';

type Db = Reading | Transaction;

/**
 * A query that is put together once for everybody who reads, and once for each transaction: for what
 * is asked with every page that somebody looks at, that takes longer than its answer.
 *
 * @param build takes its values from `sql.placeholder`
 */
export function prepared<Q>(build: (db: Db) => Q): (db: Db) => Q {
  const kept = new WeakMap<Db, Q>();
  return (db) => {
    const known = kept.get(db) ?? build(db);
    kept.set(db, known);
    return known;
  };
}
