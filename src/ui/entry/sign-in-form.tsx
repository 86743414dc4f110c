'use client';

import { useState } from 'react';
import Link from 'next/link';
import TextField from '@mui/material/TextField';
import { CallError, call } from '@/ui/http/call';
import { EntryForm } from '@/ui/entry/entry-form';

export function SignInForm({
  hint,
}: {
  readonly hint: { readonly email: string; readonly password: string } | null;
}) {
  const [asksCode, setAsksCode] = useState(false);
  const send = async ({
    email = '',
    password = '',
    code = '',
  }: Readonly<Record<string, string>>) => {
    await call('POST', '/api/v1/sign-in', {
      email,
      password,
      ...(code === '' ? {} : { code }),
    }).catch((error: unknown) => {
      if (error instanceof CallError && error.code === 'NEEDS_CODE') setAsksCode(true);
      throw error;
    });
    window.location.assign('/today');
  };
  return (
    <EntryForm
      title="Sign in"
      action="Sign in"
      onSend={send}
      below={
        hint === null ? (
          <p>
            <Link href="/password">Forgot your password?</Link>
          </p>
        ) : (
          <p className="quiet">
            This is a demo. The password of {hint.email} is{' '}
            <span className="figure">{hint.password}</span>.
          </p>
        )
      }
    >
      <TextField
        name="email"
        label="Email address"
        type="email"
        autoComplete="username"
        required
        autoFocus
        defaultValue={hint?.email ?? ''}
      />
      <TextField
        name="password"
        label="Password"
        type="password"
        autoComplete="current-password"
        required
      />
      {asksCode && (
        <TextField
          name="code"
          label="Code from your authenticator app"
          autoComplete="one-time-code"
          inputMode="numeric"
          required
          autoFocus
        />
      )}
    </EntryForm>
  );
}
