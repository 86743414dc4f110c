'use client';

import Link from 'next/link';
import { useHolds } from '@/ui/shell/permissions';

type Of = {
  readonly document?: string;
  readonly recipient?: string;
  readonly dispatch?: string;
  readonly kind: 'opened' | 'refused';
};

/** The entries of the ledger behind a figure. */
function entriesOf(of: Of): string {
  return `/ledger?${new URLSearchParams({ ...of }).toString()}`;
}

/** How many opens or refusals, leading to the entries that were counted. */
export function EntriesFigure({ n, of }: { readonly n: number; readonly of: Of }) {
  const readsRecord = useHolds('read-own-record');
  const tone = of.kind === 'refused' && n > 0 ? 'magenta' : undefined;
  if (n === 0 || !readsRecord) return <span className={tone}>{n}</span>;
  return (
    <Link prefetch={false} className={tone} href={entriesOf(of)}>
      {n}
    </Link>
  );
}
