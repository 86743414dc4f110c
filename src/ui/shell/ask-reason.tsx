'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { onReasonNeeded } from '@/ui/http/call';
import { ReasonField } from '@/ui/shell/reason-field';
import { useAnswered } from '@/ui/shell/use-answered';

/** Asks why something is done, where the organisation wants that said. */
export function AskReason() {
  const [open, answer] = useAnswered<string | null>(onReasonNeeded);
  return (
    <Dialog
      open={open}
      onClose={() => {
        answer(null);
      }}
      aria-labelledby="reason-title"
      maxWidth="xs"
      fullWidth
    >
      <ReasonForm onAnswer={answer} />
    </Dialog>
  );
}

function ReasonForm({ onAnswer }: { readonly onAnswer: (reason: string | null) => void }) {
  const [reason, setReason] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        event.stopPropagation();
        if (reason.trim() !== '') onAnswer(reason.trim());
      }}
    >
      <DialogTitle id="reason-title">Reason</DialogTitle>
      <DialogContent className="stack loose">
        <p>Your organisation asks for a reason here. It is kept in the ledger.</p>
        <ReasonField value={reason} onChange={setReason} required autoFocus />
      </DialogContent>
      <DialogActions>
        <Button
          onClick={() => {
            onAnswer(null);
          }}
        >
          Cancel
        </Button>
        <Button type="submit" variant="contained">
          Continue
        </Button>
      </DialogActions>
    </form>
  );
}
