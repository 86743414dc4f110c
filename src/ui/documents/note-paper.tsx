'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { PaperCopy } from '@/contracts/paper';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import type { PaperState } from '@/core/paper/paper-copy';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

const deeds: readonly { readonly state: PaperState; readonly label: string }[] = [
  { state: 'collected', label: 'Collected' },
  { state: 'destroyed', label: 'Destroyed' },
  { state: 'failed', label: 'Print failed: give back' },
  { state: 'out', label: 'Out' },
];

const doneWords: Readonly<Record<PaperState, string>> = {
  collected: 'noted as collected',
  destroyed: 'noted as destroyed',
  failed: 'given back: the recipient can print again',
  out: 'noted as out',
};

/** What copies were noted as before, to go back to. */
export function useUndoNoting(document: DocumentId, { attempt }: Attempt) {
  const [before, setBefore] = useState<readonly PaperCopy[]>([]);
  const back = async (): Promise<void> => {
    for (const { id, state, note } of before)
      await api('POST /api/v1/documents/:id/paper', { id: document, copies: [id], state, note });
  };
  return {
    offer: setBefore,
    take:
      before.length === 0
        ? null
        : () => {
            setBefore([]);
            void attempt(back, 'All is noted as it was before.');
          },
  };
}

/** Notes what became of the copies that are ticked. */
export function NotePaper({
  document,
  chosen,
  attempt: { busy, attempt },
  onDone,
}: {
  readonly document: DocumentId;
  readonly chosen: readonly PaperCopy[];
  readonly attempt: Attempt;
  readonly onDone: (before: readonly PaperCopy[]) => void;
}) {
  const [note, setNote] = useState('');
  const copies = counted(chosen.length, 'copy', 'copies');
  const act = async (state: PaperState) => {
    const ids = chosen.map(({ id }) => id);
    const done = await attempt(
      () => api('POST /api/v1/documents/:id/paper', { id: document, copies: ids, state, note }),
      `${copies} ${doneWords[state]}.`,
    );
    if (done) onDone(chosen);
  };
  return (
    <div className="row part" role="group" aria-label="Selected copies">
      <span className="quiet nowrap">{copies} selected</span>
      <TextField
        label="Note"
        value={note}
        onChange={({ target }) => {
          setNote(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 300 } }}
      />
      {deeds
        .filter(({ state }) => chosen.some((copy) => copy.state !== state))
        .map(({ state, label }) => (
          <Button key={state} className="nowrap" disabled={busy} onClick={() => void act(state)}>
            {label}
          </Button>
        ))}
    </div>
  );
}
