'use client';

import Button from '@mui/material/Button';
import type { DraftRow } from '@/contracts/draft';
import { ChipLink } from '@/ui/shell/chips';
import type { Draft } from '@/ui/compose/use-draft';
import { Moment } from '@/ui/time/moment';

const stateWords: Record<Draft['state'], string> = {
  untouched: '',
  changed: 'saving…',
  kept: 'saved as a draft',
  'not-kept': 'not saved: the server cannot be reached',
  elsewhere: 'not saved: this draft was changed in another window',
};

/** Whether what is typed is safe. */
export function DraftLine({ draft: { state, saveApart } }: { readonly draft: Draft }) {
  const isBad = state === 'not-kept' || state === 'elsewhere';
  return (
    <>
      <span role="status" className={isBad ? 'magenta small' : 'quiet small'}>
        {stateWords[state]}
      </span>
      {state === 'elsewhere' && (
        <>
          <Button onClick={saveApart}>Save this as another draft</Button>
          <Button
            onClick={() => {
              window.location.reload();
            }}
          >
            Show the other
          </Button>
        </>
      )}
    </>
  );
}

/** The other dispatches that were left half made. */
export function OtherDrafts({ drafts }: { readonly drafts: readonly DraftRow[] }) {
  if (drafts.length === 0) return null;
  return (
    <div className="row">
      <span className="quiet">Drafts:</span>
      {drafts.slice(0, 4).map((draft) => (
        <ChipLink key={draft.id} href={`/compose?draft=${draft.id}`}>
          {draft.subject === '' ? 'no subject yet' : draft.subject} ·{' '}
          <Moment at={draft.updatedAt} brief />
        </ChipLink>
      ))}
    </div>
  );
}
