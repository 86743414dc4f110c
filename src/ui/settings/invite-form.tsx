'use client';

import Button from '@mui/material/Button';
import { inviteInput } from '@/contracts/staff';
import { ROLES } from '@/core/policy/permissions';
import { FormSelect, FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { Note } from '@/ui/shell/notice';

/** Invites somebody to the staff by mail. */
export function InviteForm({
  mail,
  attempt,
}: {
  readonly mail: boolean;
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: inviteInput,
    start: { name: '', email: '', role: 'sender' },
    send: async (input) => {
      await api('POST /api/v1/staff', input);
      return input.name;
    },
    done: (name) => `${name} was invited.`,
    onDone: () => {
      form.reset();
    },
    attempt,
  });
  if (!mail)
    return (
      <Note>
        Nobody can be invited because no mail server is set up. Set MAIL_URL and MAIL_FROM and start
        again.
      </Note>
    );
  const { control } = form;
  return (
    <form className="row one-row top above-12" noValidate onSubmit={onSubmit}>
      <FormText control={control} name="name" label="Name" required />
      <FormText control={control} name="email" label="Email address" type="email" required />
      <FormSelect
        control={control}
        name="role"
        label="Role"
        options={ROLES.map((role) => ({ value: role, words: role }))}
      />
      <Button type="submit" className="nowrap" disabled={busy}>
        Invite
      </Button>
    </form>
  );
}
