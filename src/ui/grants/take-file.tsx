'use client';

import Button from '@mui/material/Button';
import type { DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import { takeDownload } from '@/ui/http/take-download';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';

type Taken = {
  readonly dispatchId: DispatchId;
  readonly documentId: DocumentId;
  readonly documentReference: string;
  /** Absent: everybody it was sent to. */
  readonly recipientId?: RecipientId;
  readonly address: string;
};

/** Hands over a document of one person, or of everybody, as a protected file. */
export function TakeFile({ of, label }: { readonly of: Taken; readonly label: string }) {
  const { busy, said, attempt } = useAttempt();
  const { dispatchId, documentId, documentReference, recipientId, address } = of;
  const query = new URLSearchParams({ document: documentId });
  if (recipientId !== undefined) query.set('recipient', recipientId);
  const take = () =>
    attempt(() => takeDownload(`/api/v1/dispatches/${dispatchId}/file?${query.toString()}`));
  return (
    <div>
      <Button
        variant="text"
        disabled={busy}
        aria-label={`Download ${documentReference} as a protected file for ${address}`}
        onClick={() => void take()}
      >
        {label}
      </Button>
      <Notice said={said} />
    </div>
  );
}
