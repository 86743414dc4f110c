'use client';

import { useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import { ReasonField, useReasonsAsked } from '@/ui/shell/reason-field';

/** Asks once before something that hits others is done: names whom, and asks why. */
export function Confirmation({
  open,
  title,
  action,
  busy,
  onConfirm,
  onClose,
  children,
}: {
  readonly open: boolean;
  readonly title: string;
  readonly action: string;
  readonly busy: boolean;
  readonly onConfirm: (reason: string) => void;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  const [reason, setReason] = useState('');
  const asked = useReasonsAsked();
  return (
    <Dialog
      open={open}
      onClose={onClose}
      aria-labelledby="confirmation-title"
      maxWidth="sm"
      fullWidth
    >
      <div className="part">
        <h1 id="confirmation-title">{title}</h1>
        <div style={{ margin: '12px 0 18px' }} className="stack">
          {children}
          <ReasonField value={reason} onChange={setReason} required={asked} />
        </div>
        <div className="row">
          <span className="gap" />
          <Button onClick={onClose}>Cancel</Button>
          <Button
            color="error"
            onClick={() => {
              onConfirm(reason.trim());
              setReason('');
            }}
            disabled={busy || (asked && reason.trim() === '')}
          >
            {action}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
