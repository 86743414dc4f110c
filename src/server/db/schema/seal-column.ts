import { getTableColumns } from 'drizzle-orm';
import { blob, type SQLiteTable } from 'drizzle-orm/sqlite-core';

/** A keyed hash over what decides in a row, made with every change that this product makes: see `db/seals`. */
export const seal = () => blob({ mode: 'buffer' });

/** The columns of a table that are told to anyone: a seal says nothing to a page, and stays here. */
export function withoutSeal<T extends SQLiteTable & { readonly seal: unknown }>(
  table: T,
): Omit<T['_']['columns'], 'seal'> {
  const { seal: _seal, ...columns } = getTableColumns(table) as T['_']['columns'] & {
    readonly seal: unknown;
  };
  return columns;
}
