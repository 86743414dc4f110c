'use client';

import TextField from '@mui/material/TextField';
import { MIN_PASSWORD } from '@/contracts/staff';
import { call } from '@/ui/http/call';
import { EntryForm, FormError } from '@/ui/entry/entry-form';

/** Where an invitation or a forgotten password leads. */
export function ChoosePasswordForm({ token }: { readonly token: string }) {
  const send = async ({ password = '', again = '' }: Readonly<Record<string, string>>) => {
    if (password !== again) throw new FormError('The two passwords differ.');
    await call('POST', '/api/v1/password', { token, password });
    window.location.assign('/sign-in');
  };
  return (
    <EntryForm title="Choose your password" action="Save password" onSend={send}>
      <TextField
        name="password"
        label={`Password, at least ${String(MIN_PASSWORD)} characters`}
        type="password"
        required
        autoComplete="new-password"
        autoFocus
      />
      <TextField
        name="again"
        label="Repeat password"
        type="password"
        required
        autoComplete="new-password"
      />
    </EntryForm>
  );
}
