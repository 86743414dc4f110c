'use client';

import { counted } from '@/core/base/counted';
import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DocumentId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Confirmation } from '@/ui/shell/confirmation';

type Props = {
  readonly id: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly printsMade: number;
  readonly mayHaveKept: number;
};

/** Destroys a document's key, once its reference was typed; says what remains. */
export function DestroyKey({ id, reference, title, printsMade, mayHaveKept }: Props) {
  const [asking, setAsking] = useState(false);
  const [typed, setTyped] = useState('');
  const { busy, problem, attempt } = useAttempt();
  const act = async (reason: string) => {
    if (
      await attempt(() => api('POST /api/v1/documents/:id/destroy-key', { id: id, typed, reason }))
    )
      setAsking(false);
  };
  return (
    <>
      <div className="row">
        <Button
          color="error"
          onClick={() => {
            setAsking(true);
          }}
        >
          Destroy the key…
        </Button>
      </div>
      <Confirmation
        open={asking}
        busy={busy || typed.trim() !== reference}
        title={`Destroy the key of “${title}”?`}
        action="Destroy the key"
        onClose={() => {
          setAsking(false);
          setTyped('');
        }}
        onConfirm={(reason) => void act(reason)}
      >
        <p>
          Nobody can open it through Embargo again, and <b>this cannot be undone</b>. The encrypted
          file stays.
        </p>
        <p>
          What remains:{' '}
          {printsMade > 0
            ? `${counted(printsMade, 'print rendition')} that ${printsMade === 1 ? 'was' : 'were'} made`
            : 'no print rendition'}
          ;{' '}
          {mayHaveKept > 0
            ? `copies that ${counted(mayHaveKept, 'person', 'people')} may have kept`
            : 'no kept copy'}
          ; your own clear original; and the recovery key, which still opens the encrypted file.
        </p>
        <TextField
          label={`Type ${reference} to confirm`}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
          }}
          autoComplete="off"
        />
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
      </Confirmation>
    </>
  );
}
