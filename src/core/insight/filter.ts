import type { Kind } from '@/core/insight/kinds';
import type { Outcome } from '@/core/ledger/entry';

/** What a list of entries is narrowed to; absent: everything. `from` and `to` are days, both inside. */
export type EntryFilter = Readonly<Partial<Record<'document' | 'recipient' | 'dispatch' | 'reason' | 'place' | 'organisation' | 'from' | 'to', string | undefined>>> & { readonly kind?: Kind | undefined; readonly outcome?: Outcome | undefined };
/** The moments at which the first of the days begins and the last one ends, as the entries spell moments. */
export type Span = { readonly begins?: string | undefined; readonly ends?: string | undefined };
