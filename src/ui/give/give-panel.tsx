'use client';

import type { Watermark } from '@/core/watermark/layers';
import { useState } from 'react';
import Button from '@mui/material/Button';
import type { Api } from '@/contracts/api';
import type { GiveResult } from '@/contracts/lacking';
import { termsAt } from '@/core/policy/saved-terms';
import type { Terms } from '@/core/policy/rights';
import { GiveChoice } from '@/ui/give/give-choice';
import { GiveTerms, AS_USUAL, chosenTerms } from '@/ui/give/give-terms';
import { usePaused } from '@/ui/http/use-paused';
import { useAsked } from '@/ui/http/use-asked';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice, Problem } from '@/ui/shell/notice';
import { useTicks } from '@/ui/tables/ticks';

/** What is given to whom: the chosen, on these terms. */
type Given<Id extends string> = {
  readonly chosen: readonly Id[];
  readonly terms: Terms;
  readonly watermark: Watermark;
};

/** The routes that say what is not held. */
type LackingRoute = 'GET /api/v1/people/:id/lacking' | 'GET /api/v1/documents/:id/unreached';

type Props<R extends LackingRoute, Id extends string> = {
  /** Where it is asked what is not held, and what is asked there by a search. */
  readonly from: R;
  readonly takes: (search: string) => Api[R]['takes'];
  readonly give: (given: Given<Id>) => Promise<GiveResult>;
  readonly ask: string;
  readonly title: string;
  readonly disabled: boolean;
  /** What came of it, for so many. */
  readonly done: (given: number) => string;
};

/** What is not held, documents by a person or a document by people, to give several at once. */
export function GivePanel<R extends LackingRoute, Id extends string>({
  from,
  takes,
  give,
  ask,
  title,
  disabled,
  done,
}: Props<R, Id>) {
  const { busy, said, attempt } = useAttempt();
  const [search, setSearch] = useState<string | null>(null);
  const [terms, setTerms] = useState(AS_USUAL);
  const wanted = usePaused(search ?? '');
  const ticks = useTicks<Id>();
  const { answer: lacking, problem } = useAsked(from, search === null ? null : takes(wanted));
  const close = () => {
    ticks.clear();
    setSearch(null);
  };
  if (search === null || lacking === null)
    return (
      <div className="stack">
        <div className="row">
          <Button
            disabled={search !== null || disabled}
            onClick={() => {
              setSearch('');
            }}
          >
            {ask}
          </Button>
        </div>
        <Problem words={problem} />
        <Notice said={said} />
      </div>
    );
  const count = ticks.ticked.size;
  const send = async () => {
    const chosen = chosenTerms(lacking, terms);
    const well = await attempt(
      () =>
        give({
          chosen: [...ticks.ticked],
          terms: termsAt(chosen, lacking.now),
          watermark: chosen.watermark,
        }),
      ({ waits }) =>
        waits
          ? 'This needs a second person. Nothing is given until they approve it on Today.'
          : `${done(count)} No mail was sent. The link is on the dispatch.`,
    );
    if (well) close();
  };
  return (
    <section className="stack" aria-label={title}>
      <h2>
        {title} <span className="figure">{lacking.total}</span>
      </h2>
      <GiveChoice
        title={title}
        lacking={lacking}
        ticks={ticks}
        search={search}
        onSearch={setSearch}
      />
      <Problem words={problem} />
      <GiveTerms lacking={lacking} chosen={terms} onChoose={setTerms} />
      <div className="row">
        <Button variant="contained" disabled={busy || count === 0} onClick={() => void send()}>
          Give {count}
        </Button>
        <Button variant="text" onClick={close}>
          Cancel
        </Button>
      </div>
      <Notice said={said} />
    </section>
  );
}
