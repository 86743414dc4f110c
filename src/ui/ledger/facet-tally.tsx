'use client';

import { useState } from 'react';
import Link from 'next/link';
import type { Facet, FacetCount, LedgerInput } from '@/contracts/ledger';
import type { COUNTED_DIMENSIONS } from '@/core/insight/filter';
import { useAsked } from '@/ui/http/use-asked';
import {
  addressOf,
  isWanted,
  refusing,
  takenBy,
  wanting,
  without,
} from '@/ui/ledger/ledger-address';
import { PlainField } from '@/ui/forms/plain-field';
import { ChipButton } from '@/ui/shell/chips';
import { Problem } from '@/ui/shell/notice';
import { valueText } from '@/ui/words/dimension-words';

type Counted = (typeof COUNTED_DIMENSIONS)[number];
type Props = {
  readonly dimension: Counted;
  readonly title: string;
  readonly facet: Facet;
  readonly most: number;
  readonly filter: LedgerInput;
};

/** The values of one facet, each a filter; a long one opens to all of them. */
export function FacetTally({ dimension, title, facet, most, filter }: Props) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const { answer, problem } = useAsked(
    'GET /api/v1/ledger/facet',
    open ? { ...takenBy(filter), facet: dimension } : null,
  );
  const all = open ? (answer?.values ?? null) : null;
  const wanted = text.trim().toLowerCase();
  const shown =
    all === null
      ? facet.values.slice(0, most)
      : all.filter(({ value }) => valueText(dimension, value).toLowerCase().includes(wanted));
  const largest = Math.max(1, ...(all ?? facet.values).map((count) => count.entries));
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {all !== null && (
        <div className="row small">
          <PlainField
            className="find-in"
            label={`Find in ${title}`}
            placeholder={`find among ${String(all.length)}`}
            value={text}
            onText={setText}
          />
          <ChipButton
            onClick={() => {
              setOpen(false);
            }}
          >
            Fewer
          </ChipButton>
        </div>
      )}
      <div className={all === null ? undefined : 'opened'}>
        {facet.values.length === 0 && <p className="quiet small">none</p>}
        {shown.map((count) => (
          <TallyRow
            key={count.value}
            dimension={dimension}
            count={count}
            largest={largest}
            filter={filter}
          />
        ))}
      </div>
      {all === null && facet.all > most && (
        <ChipButton
          onClick={() => {
            setOpen(true);
          }}
        >
          All {facet.all.toLocaleString('en-GB')}
        </ChipButton>
      )}
      <Problem words={problem} />
    </section>
  );
}

function TallyRow({
  dimension,
  count: { value, entries },
  largest,
  filter,
}: {
  readonly dimension: Counted;
  readonly count: FacetCount;
  readonly largest: number;
  readonly filter: LedgerInput;
}) {
  const chosen = isWanted(filter, dimension, value);
  const isRefusal = dimension === 'reason' || value === 'refused';
  const words = valueText(dimension, value);
  return (
    <div className="tally-row">
      <Link
        prefetch={false}
        className="tally"
        href={addressOf('/ledger', (chosen ? without : wanting)(filter, dimension, value), {})}
        aria-current={chosen}
        scroll={false}
      >
        <span
          className={isRefusal ? 'bar refusals' : 'bar'}
          style={{ width: `${String((entries / largest) * 100)}%` }}
        />
        <span className="word">{words}</span>
        <span className="figure">{entries.toLocaleString('en-GB')}</span>
      </Link>
      <Link
        prefetch={false}
        className="exclude"
        href={addressOf('/ledger', refusing(filter, dimension, value), {})}
        scroll={false}
        title={`Exclude ${words}`}
        aria-label={`Exclude ${words}`}
      >
        −
      </Link>
    </div>
  );
}
