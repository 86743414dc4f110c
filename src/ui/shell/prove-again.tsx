'use client';

import { useEffect, useRef, useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { CallError, call, onProofNeeded, sentenceOf } from '@/ui/http/call';

/** Asks for password and second factor again, when something is done that reaches far. */
export function ProveAgain() {
  const [open, setOpen] = useState(false);
  const [asksCode, setAsksCode] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const settle = useRef<((proven: boolean) => void) | null>(null);

  useEffect(() => {
    onProofNeeded(
      () =>
        new Promise((resolve) => {
          settle.current = resolve;
          setProblem(null);
          setOpen(true);
        }),
    );
    return () => {
      onProofNeeded(null);
    };
  }, []);

  const close = (proven: boolean) => {
    setOpen(false);
    settle.current?.(proven);
    settle.current = null;
  };
  const send = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? value : '';
    };
    try {
      await call('POST', '/api/v1/you/proof', {
        password: text('password'),
        ...(text('code') === '' ? {} : { code: text('code') }),
      });
      close(true);
    } catch (error) {
      if (error instanceof CallError && error.code === 'NEEDS_CODE') setAsksCode(true);
      setProblem(sentenceOf(error));
    }
  };

  return (
    <Dialog
      open={open}
      onClose={() => {
        close(false);
      }}
      aria-labelledby="prove-title"
      maxWidth="xs"
      fullWidth
    >
      <form className="stack part loose" onSubmit={(event) => void send(event)}>
        <h1 id="prove-title">Confirm your identity</h1>
        <p>This affects a lot, so your password is needed again. It then counts for ten minutes.</p>
        <TextField
          name="password"
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          autoFocus
        />
        {asksCode && (
          <TextField
            name="code"
            label="Code from your authenticator app"
            autoComplete="one-time-code"
            required
            autoFocus
          />
        )}
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        <div className="row">
          <span className="gap" />
          <Button
            onClick={() => {
              close(false);
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
