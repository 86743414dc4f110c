import 'server-only';
import type { BrokenSeal, Seals } from '@/server/db/seals';
import type { SealedTable } from '@/server/db/sealed-tables';
import type { Reading, Transaction } from '@/server/db/database';
import { ServiceError } from '@/server/services/base/errors';

/** The seals of rows that decide, and where one that does not hold is reported. */
export type Integrity = Pick<Seals, 'broken' | 'unbalanced' | 'isEndOurs'> & {
  readonly report: (rows: readonly BrokenSeal[]) => void;
};
type Guarded = { readonly integrity: Integrity };

/** Whether all of these rows were written by this product, as they stand; reports those that were not. */
export async function areOurs(
  { integrity }: Guarded,
  db: Reading | Transaction,
  rows: Partial<Record<SealedTable, readonly string[] | 'all'>>,
): Promise<boolean> {
  const broken = await integrity.broken(db, rows);
  if (broken.length > 0) integrity.report(broken);
  return broken.length === 0;
}

/** Of these rows those that were written by this product, as they stand. */
export async function onlyOurs<T extends { readonly id: string }>(
  { integrity }: Guarded,
  db: Reading | Transaction,
  table: SealedTable,
  rows: readonly T[],
): Promise<T[]> {
  if (rows.length === 0) return [];
  const broken = await integrity.broken(db, { [table]: rows.map(({ id }) => id) });
  if (broken.length === 0) return [...rows];
  integrity.report(broken);
  const keys = new Set(broken.map(({ key }) => key));
  return rows.filter(({ id }) => !keys.has(id));
}

/** Whether a table that is read whole lacks nothing and was not added to. */
export async function isWhole(
  { integrity }: Guarded,
  db: Reading | Transaction,
  table: SealedTable,
): Promise<boolean> {
  if ((await integrity.unbalanced(db, [table])).length === 0) return true;
  integrity.report([{ table, key: '' }]);
  return false;
}

/** @throws ServiceError `CONFLICT` where something that others are let in by was not written by this product */
export async function needOurs(
  deps: Guarded,
  db: Reading | Transaction,
  rows: Partial<Record<SealedTable, readonly string[] | 'all'>>,
): Promise<void> {
  if (await areOurs(deps, db, rows)) return;
  throw new ServiceError('rows-not-ours');
}
