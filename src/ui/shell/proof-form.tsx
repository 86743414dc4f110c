'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { proofInput } from '@/contracts/identity';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { CallError } from '@/ui/http/call';
import { Problem } from '@/ui/shell/notice';

/** Password, and a code where a second factor is set up. */
export default function ProofForm({ onAnswer }: { readonly onAnswer: (proven: boolean) => void }) {
  const [asksCode, setAsksCode] = useState(false);
  const { form, busy, problem, onSubmit } = useContractForm({
    schema: proofInput,
    start: { password: '' },
    send: (input) =>
      api('POST /api/v1/you/proof', input).catch((error: unknown) => {
        if (error instanceof CallError && error.code === 'NEEDS_CODE') setAsksCode(true);
        throw error;
      }),
    onDone: () => {
      onAnswer(true);
    },
  });
  return (
    <form noValidate onSubmit={onSubmit}>
      <DialogTitle id="prove-title">Confirm your identity</DialogTitle>
      <DialogContent className="stack loose">
        <p>This affects a lot, so your password is needed again. It then counts for ten minutes.</p>
        <FormText
          control={form.control}
          name="password"
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          autoFocus
        />
        {asksCode && (
          <FormText
            control={form.control}
            name="code"
            label="Code from your authenticator app"
            autoComplete="one-time-code"
            required
            autoFocus
          />
        )}
        <Problem words={problem} />
      </DialogContent>
      <DialogActions>
        <Button
          onClick={() => {
            onAnswer(false);
          }}
        >
          Cancel
        </Button>
        <Button type="submit" variant="contained" disabled={busy}>
          Continue
        </Button>
      </DialogActions>
    </form>
  );
}
