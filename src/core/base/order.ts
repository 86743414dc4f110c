/** A column that a list is ordered by; with a minus before it, from the end. */
export type OrderBy<C extends string> = C | `-${C}`;

/** The column of an order, and whether it goes from the end. */
export function splitOrder<C extends string>(
  order: OrderBy<C>,
): { readonly by: C; readonly down: boolean } {
  const down = order.startsWith('-');
  return { by: (down ? order.slice(1) : order) as C, down };
}

/** What documents can be ordered by. */
export const DOCUMENT_ORDERS = [
  'title',
  'reference',
  'marking',
  'owner',
  'pages',
  'bytes',
  'people',
  'opens',
  'protectedAt',
  'state',
] as const;
export type DocumentOrder = (typeof DOCUMENT_ORDERS)[number];

/** What the people can be ordered by. */
export const PEOPLE_ORDERS = [
  'name',
  'organisation',
  'documents',
  'live',
  'opens',
  'lastOpen',
] as const;
export type PeopleOrder = (typeof PEOPLE_ORDERS)[number];
