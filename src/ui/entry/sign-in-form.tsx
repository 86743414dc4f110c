'use client';

import { useState } from 'react';
import Link from 'next/link';
import { signInInput } from '@/contracts/identity';
import { EntryForm } from '@/ui/entry/entry-form';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { CallError } from '@/ui/http/call';

type Hint = { readonly email: string; readonly password: string };

/** Email address and password, and a code where a second factor is set up. */
export function SignInForm({ hint }: { readonly hint: Hint | null }) {
  const [asksCode, setAsksCode] = useState(false);
  const signIn = useContractForm({
    schema: signInInput,
    start: { email: hint?.email ?? '', password: '' },
    send: (input) =>
      api('POST /api/v1/sign-in', input).catch((error: unknown) => {
        if (error instanceof CallError && error.code === 'NEEDS_CODE') setAsksCode(true);
        throw error;
      }),
    onDone: () => {
      window.location.assign('/today');
    },
  });
  const { control } = signIn.form;
  return (
    <EntryForm title="Sign in" action="Sign in" of={signIn} below={<Below hint={hint} />}>
      <FormText
        control={control}
        name="email"
        label="Email address"
        type="email"
        autoComplete="username"
        required
        autoFocus
      />
      <FormText
        control={control}
        name="password"
        label="Password"
        type="password"
        autoComplete="current-password"
        required
      />
      {asksCode && (
        <FormText
          control={control}
          name="code"
          label="Code from your authenticator app"
          autoComplete="one-time-code"
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          required
          autoFocus
        />
      )}
    </EntryForm>
  );
}

function Below({ hint }: { readonly hint: Hint | null }) {
  if (hint === null)
    return (
      <p>
        <Link href="/password">Forgot your password?</Link>
      </p>
    );
  return (
    <p className="quiet">
      This is a demo. The password of {hint.email} is{' '}
      <span className="figure">{hint.password}</span>.
    </p>
  );
}
