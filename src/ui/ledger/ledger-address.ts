import type { LedgerInput } from '@/contracts/ledger';

/** The address of this view with some of its filters changed; filters live in the address alone. */
export function addressOf(path: string, filter: LedgerInput, change: Partial<Record<keyof LedgerInput, string | number | undefined>>): string {
  const entries = Object.entries({ ...filter, before: undefined, ...change }).filter(([, value]) => value !== undefined).map(([key, value]): [string, string] => [key, String(value)]);
  const query = new URLSearchParams(entries).toString();
  return query === '' ? path : `${path}?${query}`;
}
