'use client';

import { useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
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
      <DialogTitle id="confirmation-title">{title}</DialogTitle>
      <DialogContent className="stack">
        {children}
        <ReasonField value={reason} onChange={setReason} required={asked} />
      </DialogContent>
      <DialogActions>
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
      </DialogActions>
    </Dialog>
  );
}
