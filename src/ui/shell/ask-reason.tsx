'use client';

import { useEffect, useRef, useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import { onReasonNeeded } from '@/ui/http/call';
import { ReasonField } from '@/ui/shell/reason-field';

/** Asks why something is done, where the organisation wants that said. */
export function AskReason() {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const settle = useRef<((reason: string | null) => void) | null>(null);

  useEffect(() => {
    onReasonNeeded(
      () =>
        new Promise((resolve) => {
          settle.current = resolve;
          setReason('');
          setOpen(true);
        }),
    );
    return () => {
      onReasonNeeded(null);
    };
  }, []);

  const close = (given: string | null) => {
    setOpen(false);
    settle.current?.(given);
    settle.current = null;
  };
  const send = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (reason.trim() !== '') close(reason.trim());
  };
  return (
    <Dialog
      open={open}
      onClose={() => {
        close(null);
      }}
      aria-labelledby="reason-title"
      maxWidth="xs"
      fullWidth
    >
      <form className="stack part loose" onSubmit={send}>
        <h1 id="reason-title">Reason</h1>
        <p>Your organisation asks for a reason here. It is kept in the ledger.</p>
        <ReasonField value={reason} onChange={setReason} required autoFocus />
        <div className="row">
          <span className="gap" />
          <Button
            onClick={() => {
              close(null);
            }}
          >
            Cancel
          </Button>
          <Button type="submit" variant="contained">
            Continue
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
