'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { WhyPanel } from '@/ui/why/why-panel';

/** Asks why somebody can or cannot open a document, in one click. */
export function AskWhy({
  recipient,
  document,
  label,
}: {
  readonly recipient: RecipientId;
  readonly document: DocumentId;
  readonly label: string;
}) {
  const [open, setOpen] = useState(false);
  if (open) return <WhyPanel recipient={recipient} document={document} />;
  return (
    <div className="row">
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        {label}
      </Button>
    </div>
  );
}
