'use client';

import Link from 'next/link';
import type { FacetCount, LedgerInput, LedgerPage } from '@/contracts/ledger';
import { KINDS } from '@/core/insight/kinds';
import { addressOf } from '@/ui/ledger/ledger-address';
import { kindWords } from '@/ui/words/action-words';

const MOST = 5;
const MOST_KINDS = KINDS.length;

type HeapProps = { readonly title: string; readonly counts: readonly FacetCount[]; readonly most: number; readonly chosen: string | undefined; readonly refused: (value: string) => boolean; readonly words: (value: string) => string; readonly hrefOf: (value: string | undefined) => string };

function Heap({ title, counts, most, chosen, refused, words, hrefOf }: HeapProps) {
  const largest = Math.max(1, ...counts.map((count) => count.entries));
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <div>
      {counts.length === 0 && <p className="quiet" style={{ fontSize: 12.5 }}>none</p>}
      {counts.slice(0, most).map(({ value, entries }) => (
        <Link key={value} className="heap" href={hrefOf(value === chosen ? undefined : value)} aria-current={value === chosen} scroll={false}>
          <span className="bar" style={{ width: `${String((entries / largest) * 100)}%`, background: refused(value) ? 'var(--magenta-soft)' : 'var(--current-soft)' }} />
          <span className="word">{words(value)}</span>
          <span className="figure">{entries.toLocaleString('en-GB')}</span>
        </Link>
      ))}
      </div>
    </section>
  );
}

/** How many entries there are of each kind, reason, place and organisation, each a filter. */
export function Facets({ facets, filter }: { readonly facets: LedgerPage['facets']; readonly filter: LedgerInput }) {
  const plain = (value: string) => value;
  return (
    <div className="facets">
      <Heap title="What" most={MOST_KINDS} counts={KINDS.flatMap((kind) => facets.kinds.filter((count) => count.value === kind))} chosen={filter.kind} refused={(value) => value === 'refused'} words={(value) => kindWords[value as keyof typeof kindWords]} hrefOf={(kind) => addressOf('/ledger', filter, { kind })} />
      <Heap title="Why refused" most={MOST} counts={facets.reasons} chosen={filter.reason} refused={() => true} words={(value) => value.replaceAll('-', ' ')} hrefOf={(reason) => addressOf('/ledger', filter, { reason })} />
      <Heap title="Place" most={MOST} counts={facets.places} chosen={filter.place} refused={() => false} words={plain} hrefOf={(place) => addressOf('/ledger', filter, { place })} />
      <Heap title="Organisation" most={MOST} counts={facets.organisations} chosen={filter.organisation} refused={() => false} words={plain} hrefOf={(organisation) => addressOf('/ledger', filter, { organisation })} />
    </div>
  );
}
