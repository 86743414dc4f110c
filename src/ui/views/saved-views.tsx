'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import type { SavedView, ViewPlace } from '@/contracts/views';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { Problem } from '@/ui/shell/notice';

const SaveView = dynamic(() => import('@/ui/views/save-view').then((form) => form.SaveView));

/** Views of a list saved under a name: chosen, saved, removed. */
export function SavedViews({
  place,
  views,
  query,
}: {
  readonly place: ViewPlace;
  readonly views: readonly SavedView[];
  /** What stands behind the question mark of the address now. */
  readonly query: string;
}) {
  const [naming, setNaming] = useState(false);
  const { problem, attempt } = useAttempt();
  const here = views.find((view) => view.query === query);
  if (views.length === 0 && query === '') return null;
  return (
    <div className="row small above-6" role="group" aria-label="Saved views">
      <span className="quiet">Saved views</span>
      {views.map((view) => (
        <ChipLink
          key={view.id}
          href={view.query === '' ? `/${place}` : `/${place}?${view.query}`}
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
        <ChipButton onClick={() => void attempt(() => api('DELETE /api/v1/views/:id', here))}>
          Remove “{here.name}”
        </ChipButton>
      )}
      {naming && (
        <SaveView
          place={place}
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
