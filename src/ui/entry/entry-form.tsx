'use client';

import { useState, type ReactNode, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import { sentenceOf } from '@/ui/http/call';
import { Emblem } from '@/ui/shell/emblem';

/** What is wrong with the form before anything is sent, worded for the person. */
export class FormError extends Error {
  override readonly name = 'FormError';
}

type Props = {
  readonly title: string;
  readonly action: string;
  readonly onSend: (fields: Readonly<Record<string, string>>) => Promise<void>;
  readonly children: ReactNode;
  readonly below?: ReactNode;
};

/** A page with one form on it, before anybody is signed in. */
export function EntryForm({ title, action, onSend, children, below }: Props) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const submit = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const fields = Object.fromEntries(
      [...new FormData(event.currentTarget)].map(([name, value]) => [
        name,
        typeof value === 'string' ? value : '',
      ]),
    );
    setBusy(true);
    setProblem(null);
    try {
      await onSend(fields);
    } catch (error) {
      setProblem(error instanceof FormError ? error.message : sentenceOf(error));
      setBusy(false);
    }
  };

  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <h1>{title}</h1>
      <form
        className="stack"
        style={{ gap: 18, marginTop: 22 }}
        onSubmit={(event) => void submit(event)}
      >
        {children}
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            {action}
          </Button>
        </div>
        {below}
      </form>
    </main>
  );
}
