import { z } from 'zod';

/** A stretch of a long list: rows, how many pass the filter in all, and from where to go on. */
export type Page<R> = {
  readonly rows: readonly R[];
  readonly total: number;
  readonly next: string | null;
};

/** A column that a list is ordered by; with a minus before it, from the end. */
export type OrderBy<C extends string> = C | `-${C}`;

/** What says how a list is ordered: one of its columns, from the end where a minus stands before it. */
export function orderBy<C extends string>(columns: readonly C[]) {
  return z.enum([...columns, ...columns.map((column): `-${C}` => `-${column}`)]);
}

/** The column of an order, and whether it goes from the end. */
export function splitOrder<C extends string>(
  order: OrderBy<C>,
): { readonly by: C; readonly down: boolean } {
  const down = order.startsWith('-');
  return { by: (down ? order.slice(1) : order) as C, down };
}
