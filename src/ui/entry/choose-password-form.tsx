'use client';

import { MIN_PASSWORD, newPassword } from '@/contracts/identity';
import { EntryForm } from '@/ui/entry/entry-form';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** Where an invitation or a forgotten password leads. */
export function ChoosePasswordForm({ token }: { readonly token: string }) {
  const choose = useContractForm({
    schema: newPassword,
    start: { token, password: '', again: '' },
    send: ({ password }) => api('POST /api/v1/password', { token, password }),
    onDone: () => {
      window.location.assign('/sign-in');
    },
  });
  const { control } = choose.form;
  return (
    <EntryForm title="Choose your password" action="Save password" of={choose}>
      <FormText
        control={control}
        name="password"
        label={`Password, at least ${String(MIN_PASSWORD)} characters`}
        type="password"
        required
        autoComplete="new-password"
        autoFocus
      />
      <FormText
        control={control}
        name="again"
        label="Repeat password"
        type="password"
        required
        autoComplete="new-password"
      />
    </EntryForm>
  );
}
