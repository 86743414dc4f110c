import { z } from 'zod';

/** A stretch of a long list: rows, how many pass the filter in all, and from where to go on. */
export type Page<R> = {
  readonly rows: readonly R[];
  readonly total: number;
  readonly next: string | null;
};

/** What says how a list is ordered: one of its columns, from the end where a minus stands before it. */
export function orderBy<C extends string>(columns: readonly C[]) {
  return z.enum([...columns, ...columns.map((column): `-${C}` => `-${column}`)]);
}
