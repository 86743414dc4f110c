'use client';

import { useState } from 'react';
import { passwordMailInput } from '@/contracts/identity';
import { EntryForm, EntryPage } from '@/ui/entry/entry-form';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** Asks for a way to choose a new password; what it answers does not tell who is on the staff. */
export function ForgottenForm() {
  const [sentTo, setSentTo] = useState<string | null>(null);
  const ask = useContractForm({
    schema: passwordMailInput,
    start: { email: '' },
    send: async ({ email }) => {
      await api('POST /api/v1/password/request', { email });
      return email;
    },
    onDone: setSentTo,
  });
  if (sentTo !== null)
    return (
      <EntryPage title="Check your email">
        <p className="above-12">
          If {sentTo} belongs to a member of staff, an email with a link is on its way. The link
          works once, for one hour.
        </p>
      </EntryPage>
    );
  return (
    <EntryForm title="Choose a new password" action="Send me a link" of={ask}>
      <FormText
        control={ask.form.control}
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
