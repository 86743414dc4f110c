import type { OpensInput } from '@/contracts/opens';

function queryOf(values: Readonly<Record<string, string | undefined>>): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(values))
    if (value !== undefined && value !== '') query.set(name, value);
  return query.toString();
}

/** The address of this view with some of its filters changed; filters live in the address alone. */
export function opensAddress(
  path: string,
  filter: OpensInput,
  change: Partial<OpensInput> = {},
): string {
  const query = queryOf({ ...filter, ...change });
  return query === '' ? path : `${path}?${query}`;
}

/** The entries of the ledger behind one figure. */
export function entriesAddress(
  { from, to, dispatch }: OpensInput,
  of: {
    readonly recipient: string;
    readonly document?: string;
    readonly kind: 'opened' | 'refused';
  },
): string {
  return `/ledger?${queryOf({ ...of, dispatch, from, to })}`;
}
