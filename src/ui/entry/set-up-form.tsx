'use client';

import { useState } from 'react';
import TextField from '@mui/material/TextField';
import { MIN_PASSWORD } from '@/contracts/staff';
import { call } from '@/ui/http/call';
import { EntryForm, FormError } from '@/ui/entry/entry-form';
import { MakeRecovery } from '@/ui/recovery/make-recovery';

/** The first visit: organisation, first administrator, recovery key. */
export function SetUpForm({ token }: { readonly token: string }) {
  const [recoveryKey, setRecoveryKey] = useState<string | null>(null);

  const send = async (fields: Readonly<Record<string, string>>) => {
    if (recoveryKey === null)
      throw new FormError(
        'Make the recovery key, store it and enter it again first. Without it, the files are ' +
          'lost if this server is lost.',
      );
    await call('POST', '/api/v1/set-up', { ...fields, recoveryKey });
    window.location.assign('/sign-in');
  };

  return (
    <EntryForm title="Set up Embargo" action="Set up" onSend={send}>
      <TextField
        name="token"
        label="Set-up token from the console"
        required
        defaultValue={token}
        autoComplete="off"
      />
      <TextField
        name="organisation"
        label="Name of your organisation"
        required
        autoComplete="organization"
      />
      <TextField
        name="zone"
        label="Time zone"
        required
        defaultValue={Intl.DateTimeFormat().resolvedOptions().timeZone}
        helperText="Used in messages and watermarks"
      />
      <TextField name="name" label="Your name" required autoComplete="name" />
      <TextField
        name="email"
        label="Your email address"
        type="email"
        required
        autoComplete="username"
      />
      <TextField
        name="password"
        label={`Password, at least ${String(MIN_PASSWORD)} characters`}
        type="password"
        required
        autoComplete="new-password"
      />
      <section className="stack">
        <h2>Recovery key</h2>
        <p>
          Every file is also encrypted to this key, so that your organisation can open its files
          without Embargo, with the standard age tool. It is made in this browser; only its public
          half is sent.
        </p>
        <MakeRecovery twoPeople={false} onKept={setRecoveryKey} />
      </section>
    </EntryForm>
  );
}
