'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { call, sentenceOf } from '@/ui/http/call';
import { Emblem } from '@/ui/shell/emblem';

export function SignInForm({ hint }: { readonly hint: { readonly email: string; readonly password: string } | null }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const submit = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setProblem(null);
    try {
      await call('POST', '/api/v1/sign-in', { email: form.get('email'), password: form.get('password') });
      window.location.assign('/dispatches');
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };

  return (
    <main className="entry">
      <div className="brand"><Emblem />Embargo</div>
      <h1>Sign in</h1>
      <form className="stack" style={{ gap: 18, marginTop: 22 }} onSubmit={(event) => void submit(event)}>
        <TextField name="email" label="Address" type="email" autoComplete="username" required autoFocus defaultValue={hint?.email ?? ''} />
        <TextField name="password" label="Password" type="password" autoComplete="current-password" required />
        {problem !== null && <p role="alert" className="magenta">{problem}</p>}
        <div className="row"><Button type="submit" variant="contained" disabled={busy}>Sign in</Button></div>
        {hint !== null && <p className="quiet">This is a demo. The password of {hint.email} is <span className="figure">{hint.password}</span>.</p>}
      </form>
    </main>
  );
}
