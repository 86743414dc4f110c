'use client';

import { useState } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DispatchDetail, GrantRow } from '@/contracts/dispatch';
import type { DocumentRow } from '@/contracts/document';
import { counted } from '@/core/base/counted';
import { groupBy } from '@/core/base/group';
import { personName, stateOf } from '@/ui/grants/grant-words';
import { api } from '@/ui/http/api';
import { useAsked } from '@/ui/http/use-asked';
import { useAttempt } from '@/ui/http/use-attempt';
import { DocumentStrip } from '@/ui/protecting/document-strip';
import { useFiles } from '@/ui/protecting/use-files';
import { Problem } from '@/ui/shell/notice';

const NONE = { rows: [], total: 0, next: null };

/** Everybody whom the dispatch addresses and who can open something of it, or will. */
function standing(grants: readonly GrantRow[], now: number): GrantRow[] {
  const live = grants.filter((grant) => {
    const state = stateOf(grant, now);
    return grant.passedOnBy === null && (state === 'live' || state === 'not-yet');
  });
  return [...groupBy(live, ({ recipientId }) => recipientId).values()].flatMap((own) =>
    own.slice(0, 1),
  );
}

/** Adds documents to a dispatch, for all of its people or some, each on the terms they have there. */
export function AddDocuments({
  detail,
  now,
  onDone,
}: {
  readonly detail: DispatchDetail;
  readonly now: number;
  readonly onDone: () => void;
}) {
  const [documents, setDocuments] = useState<readonly DocumentRow[]>([]);
  const [only, setOnly] = useState<readonly GrantRow[]>([]);
  const { busy, problem, attempt } = useAttempt();
  const { answer } = useAsked('GET /api/v1/documents', { q: '', own: 'true' });
  const carried = new Set(detail.grants.map(({ documentId }) => documentId));
  const offered = answer ?? NONE;
  const pick = (document: DocumentRow, on: boolean) => {
    setDocuments((before) => [
      ...before.filter(({ id }) => id !== document.id),
      ...(on ? [document] : []),
    ]);
  };
  const files = useFiles({ markings: detail.markings }, (document) => {
    pick(document, true);
  });
  const people = standing(detail.grants, now);
  const send = async () => {
    const well = await attempt(() =>
      api('POST /api/v1/dispatches/:id/documents', {
        id: detail.id,
        documents: documents.map(({ id }) => id),
        recipients: only.length === 0 ? null : only.map(({ recipientId }) => recipientId),
      }),
    );
    if (well) onDone();
  };
  const whom = only.length === 0 ? people.length : only.length;
  return (
    <section className="stack loose add-people" aria-label="Add documents">
      <DocumentStrip
        first={{ ...offered, rows: offered.rows.filter(({ id }) => !carried.has(id)) }}
        markings={detail.markings}
        documents={documents}
        files={files}
        onPick={pick}
      />
      <Autocomplete<GrantRow, true>
        multiple
        options={people}
        value={[...only]}
        getOptionLabel={personName}
        getOptionKey={({ recipientId }) => recipientId}
        isOptionEqualToValue={(a, b) => a.recipientId === b.recipientId}
        onChange={(_event, chosen) => {
          setOnly(chosen);
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Only for"
            placeholder={only.length === 0 ? `all ${counted(people.length, 'recipient')}` : ''}
          />
        )}
      />
      <Problem words={problem} />
      <div className="row">
        <Button
          variant="contained"
          disabled={busy || documents.length === 0 || files.jobs.length > 0 || whom === 0}
          onClick={() => void send()}
        >
          Add {counted(documents.length, 'document')}
        </Button>
        <span className="quiet">
          {whom === 0
            ? 'Nobody can open anything of this dispatch any more.'
            : `${counted(whom, 'recipient')} on the terms each has here` +
              (detail.delivery === 'mail' ? '; they are mailed.' : '; you hand it over.')}
        </span>
      </div>
    </section>
  );
}
