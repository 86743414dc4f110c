'use client';

import { useState } from 'react';
import Link from 'next/link';
import type { Facet, FacetCount, LedgerInput, LedgerPage } from '@/contracts/ledger';
import type { COUNTED_DIMENSIONS } from '@/core/insight/filter';
import { KINDS } from '@/core/insight/kinds';
import { ChipButton } from '@/ui/shell/chips';
import { call, sentenceOf } from '@/ui/http/call';
import { addressOf, isWanted, refusing, wanting, without } from '@/ui/ledger/ledger-address';
import { valueText } from '@/ui/words/dimension-words';

const MOST = 5;

type Counted = (typeof COUNTED_DIMENSIONS)[number];
type TallyProps = {
  readonly dimension: Counted;
  readonly title: string;
  readonly facet: Facet;
  readonly most: number;
  readonly filter: LedgerInput;
};

/** The values of one heading, each a filter; a long one opens to all of them. */
function Tally({ dimension, title, facet, most, filter }: TallyProps) {
  const [all, setAll] = useState<readonly FacetCount[] | null>(null);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const open = () => {
    const address = addressOf('/api/v1/ledger/facet', filter, {});
    call<{ readonly values: readonly FacetCount[] }>(
      'GET',
      `${address}${address.includes('?') ? '&' : '?'}facet=${dimension}`,
    ).then(
      ({ values }) => {
        setAll(values);
      },
      (error: unknown) => {
        setProblem(sentenceOf(error));
      },
    );
  };
  const shown =
    all === null
      ? facet.values.slice(0, most)
      : all.filter(({ value }) =>
          valueText(dimension, value).toLowerCase().includes(text.trim().toLowerCase()),
        );
  const largest = Math.max(1, ...(all ?? facet.values).map((count) => count.entries));
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {all !== null && (
        <div className="row small">
          <input
            className="plain"
            aria-label={`Find in ${title}`}
            placeholder={`find among ${String(all.length)}`}
            value={text}
            onChange={(event) => {
              setText(event.target.value);
            }}
            style={{ width: 130 }}
          />
          <ChipButton
            onClick={() => {
              setAll(null);
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
        <ChipButton onClick={open}>All {facet.all.toLocaleString('en-GB')}</ChipButton>
      )}
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
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
        className="tally"
        href={addressOf('/ledger', (chosen ? without : wanting)(filter, dimension, value), {})}
        aria-current={chosen}
        scroll={false}
      >
        <span
          className="bar"
          style={{
            width: `${String((entries / largest) * 100)}%`,
            background: isRefusal ? 'var(--magenta-soft)' : 'var(--current-soft)',
          }}
        />
        <span className="word">{words}</span>
        <span className="figure">{entries.toLocaleString('en-GB')}</span>
      </Link>
      <Link
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

/** How many entries there are of each kind, reason, place and organisation, each a filter. */
export function Facets({
  facets,
  filter,
}: {
  readonly facets: LedgerPage['facets'];
  readonly filter: LedgerInput;
}) {
  const kinds = KINDS.flatMap((kind) => facets.kinds.filter((count) => count.value === kind));
  return (
    <div className="facets">
      <Tally
        dimension="kind"
        title="What"
        most={KINDS.length}
        facet={{ values: kinds, all: kinds.length }}
        filter={filter}
      />
      <Tally
        dimension="reason"
        title="Why refused"
        most={MOST}
        facet={facets.reasons}
        filter={filter}
      />
      <Tally dimension="place" title="Place" most={MOST} facet={facets.places} filter={filter} />
      <Tally
        dimension="organisation"
        title="Organisation"
        most={MOST}
        facet={facets.organisations}
        filter={filter}
      />
    </div>
  );
}
