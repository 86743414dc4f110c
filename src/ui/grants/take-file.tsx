'use client';

import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { takeDownload } from '@/ui/http/take-download';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';

/** Hands over one person's document as a protected file. */
export function TakeFile({ grant, label }: { readonly grant: GrantRow; readonly label: string }) {
  const { busy, said, attempt } = useAttempt();
  const query = new URLSearchParams({ recipient: grant.recipientId, document: grant.documentId });
  const take = () =>
    attempt(() => takeDownload(`/api/v1/dispatches/${grant.dispatchId}/file?${query.toString()}`));
  return (
    <div>
      <Button
        variant="text"
        disabled={busy}
        aria-label={`Download ${grant.documentReference} as a protected file for ${grant.address}`}
        onClick={() => void take()}
      >
        {label}
      </Button>
      <Notice said={said} />
    </div>
  );
}
