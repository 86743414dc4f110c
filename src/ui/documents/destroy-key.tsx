'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import { DestroyDialog } from '@/ui/documents/destroy-dialog';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';

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
  const { busy, problem, attempt } = useAttempt();
  const destroy = async (typed: string, reason: string) => {
    const well = await attempt(() =>
      api('POST /api/v1/documents/:id/destroy-key', { id, typed, reason }),
    );
    if (well) setAsking(false);
  };
  const prints =
    printsMade > 0
      ? `${counted(printsMade, 'print rendition')} that ${printsMade === 1 ? 'was' : 'were'} made`
      : 'no print rendition';
  const kept =
    mayHaveKept > 0
      ? `copies that ${counted(mayHaveKept, 'person', 'people')} may have kept`
      : 'no kept copy';
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
      <DestroyDialog
        open={asking}
        title={`Destroy the key of “${title}”?`}
        action="Destroy the key"
        words={reference}
        isTyped={(typed) => typed.trim() === reference}
        busy={busy}
        problem={problem}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(typed, reason) => void destroy(typed, reason)}
      >
        <p>
          Nobody can open it through Embargo again, and <b>this cannot be undone</b>. The encrypted
          file stays.
        </p>
        <p>
          What remains: {prints}; {kept}; your own clear original; and the recovery key, which still
          opens the encrypted file.
        </p>
      </DestroyDialog>
    </>
  );
}
