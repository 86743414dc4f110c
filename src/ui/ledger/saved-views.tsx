'use client';

import { useState } from 'react';
import type { SavedView, LedgerInput } from '@/contracts/ledger';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { addressOf } from '@/ui/ledger/ledger-address';

/** Views of the ledger kept under a name: chosen, kept, dropped. */
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
  const keep = async (name: FormDataEntryValue | null) => {
    if (await attempt(() => call('POST', '/api/v1/ledger/views', { name, query })))
      setNaming(false);
  };
  if (views.length === 0 && query === '') return null;
  return (
    <div
      className="row"
      role="group"
      aria-label="Saved views"
      style={{ marginTop: 6, fontSize: 12.5 }}
    >
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
          onClick={() => void attempt(() => call('DELETE', `/api/v1/ledger/views/${here.id}`))}
        >
          Remove “{here.name}”
        </ChipButton>
      )}
      {naming && (
        <form
          className="row"
          onSubmit={(event) => {
            event.preventDefault();
            void keep(new FormData(event.currentTarget).get('name'));
          }}
        >
          <input
            className="plain"
            name="name"
            required
            autoFocus
            maxLength={60}
            aria-label="Name of the view"
            placeholder="name"
            style={{ width: 160 }}
            onKeyDown={(event) => {
              if (event.key === 'Escape') setNaming(false);
            }}
          />
          <ChipButton type="submit">Save</ChipButton>
        </form>
      )}
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
    </div>
  );
}
