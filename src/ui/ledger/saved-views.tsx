'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import type { LedgerInput, SavedView } from '@/contracts/ledger';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { addressOf } from '@/ui/ledger/ledger-address';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { Problem } from '@/ui/shell/notice';

const SaveView = dynamic(() => import('@/ui/ledger/save-view').then((form) => form.SaveView));

/** Views of the ledger saved under a name: chosen, saved, removed. */
export function SavedViews({
  views,
  filter,
}: {
  readonly views: readonly SavedView[];
  readonly filter: LedgerInput;
}) {
  const [naming, setNaming] = useState(false);
  const { problem, attempt } = useAttempt();
  const query = addressOf('', filter, {}).replace(/^\?/, '');
  const here = views.find((view) => view.query === query);
  if (views.length === 0 && query === '') return null;
  return (
    <div className="row small above-6" role="group" aria-label="Saved views">
      <span className="quiet">Saved views</span>
      {views.map((view) => (
        <ChipLink
          key={view.id}
          href={view.query === '' ? '/ledger' : `/ledger?${view.query}`}
          aria-current={view === here ? 'true' : undefined}
        >
          {view.name}
        </ChipLink>
      ))}
      {views.length === 0 && !naming && <span className="quiet">none yet</span>}
      {query !== '' && here === undefined && !naming && (
        <ChipButton
          onClick={() => {
            setNaming(true);
          }}
        >
          Save this view
        </ChipButton>
      )}
      {here !== undefined && (
        <ChipButton
          onClick={() => void attempt(() => api('DELETE /api/v1/ledger/views/:id', here))}
        >
          Remove “{here.name}”
        </ChipButton>
      )}
      {naming && (
        <SaveView
          query={query}
          onClose={() => {
            setNaming(false);
          }}
        />
      )}
      <Problem words={problem} />
    </div>
  );
}
