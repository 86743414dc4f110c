/** A column that a list is ordered by; with a minus before it, from the end. */
export type OrderBy<C extends string> = C | `-${C}`;

/** The column of an order, and whether it goes from the end. */
export function splitOrder<C extends string>(
  order: OrderBy<C>,
): { readonly by: C; readonly down: boolean } {
  const down = order.startsWith('-');
  return { by: (down ? order.slice(1) : order) as C, down };
}
