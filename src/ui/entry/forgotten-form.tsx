'use client';

import { useState } from 'react';
import TextField from '@mui/material/TextField';
import { call } from '@/ui/http/call';
import { EntryForm } from '@/ui/entry/entry-form';
import { Emblem } from '@/ui/shell/emblem';

/** Asks for a way to choose a new password; what it answers does not tell who is on the staff. */
export function ForgottenForm() {
  const [sentTo, setSentTo] = useState<string | null>(null);
  const send = async ({ email = '' }: Readonly<Record<string, string>>) => {
    await call('POST', '/api/v1/password/request', { email });
    setSentTo(email);
  };
  if (sentTo !== null) {
    return (
      <main className="entry">
        <div className="brand">
          <Emblem />
          Embargo
        </div>
        <h1>Check your email</h1>
        <p className="above-12">
          If {sentTo} belongs to a member of staff, an email with a link is on its way. The link
          works once, for one hour.
        </p>
      </main>
    );
  }
  return (
    <EntryForm title="Choose a new password" action="Send me a link" onSend={send}>
      <TextField
        name="email"
        label="Email address"
        type="email"
        autoComplete="username"
        required
        autoFocus
      />
    </EntryForm>
  );
}
