'use client';

import type { DraftRow } from '@/contracts/draft';
import { ChipLink } from '@/ui/shell/chips';
import type { Draft } from '@/ui/compose/use-draft';
import { Moment } from '@/ui/time/moment';

const stateWords: Record<Draft['state'], string> = {
  untouched: '',
  changed: 'keeping…',
  kept: 'saved as a draft',
  'not-kept': 'not saved: the server cannot be reached',
};

/** Whether what is typed is safe, and the other dispatches that were left half made. */
export function DraftLine({
  state,
  drafts,
}: {
  readonly state: Draft['state'];
  readonly drafts: readonly DraftRow[];
}) {
  return (
    <div className="row draft-line">
      <span role="status" className={state === 'not-kept' ? 'magenta' : 'quiet'}>
        {stateWords[state]}
      </span>
      {state === 'untouched' && drafts.length > 0 && <span className="quiet">Drafts:</span>}
      {state === 'untouched' &&
        drafts.slice(0, 4).map((draft) => (
          <ChipLink key={draft.id} href={`/compose?draft=${draft.id}`}>
            {draft.subject === '' ? 'no subject yet' : draft.subject} ·{' '}
            <Moment at={draft.updatedAt} brief />
          </ChipLink>
        ))}
    </div>
  );
}
