'use client';

import { setUpForm } from '@/contracts/organisation';
import { MIN_PASSWORD } from '@/contracts/identity';
import { EntryForm } from '@/ui/entry/entry-form';
import { FormText, sentence } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { MakeRecovery } from '@/ui/recovery/make-recovery';

/** The first visit: organisation, first administrator, recovery key. */
export function SetUpForm({ token }: { readonly token: string }) {
  const setUp = useContractForm({
    schema: setUpForm,
    start: {
      token,
      organisation: '',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      name: '',
      email: '',
      password: '',
      recoveryKey: null,
    },
    send: (input) => api('POST /api/v1/set-up', input),
    onDone: () => {
      window.location.assign('/sign-in');
    },
  });
  const { control, setValue, formState } = setUp.form;
  const wrongKey = formState.errors.recoveryKey?.message;
  return (
    <EntryForm title="Set up Embargo" action="Set up" of={setUp}>
      <FormText
        control={control}
        name="token"
        label="Set-up token from the console"
        required
        autoComplete="off"
      />
      <FormText
        control={control}
        name="organisation"
        label="Name of your organisation"
        required
        autoComplete="organization"
      />
      <FormText
        control={control}
        name="zone"
        label="Time zone"
        required
        hint="Used in messages and watermarks"
      />
      <FormText control={control} name="name" label="Your name" required autoComplete="name" />
      <FormText
        control={control}
        name="email"
        label="Your email address"
        type="email"
        required
        autoComplete="username"
      />
      <FormText
        control={control}
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
        <MakeRecovery
          twoPeople={false}
          onKept={(recoveryKey) => {
            setValue('recoveryKey', recoveryKey, { shouldValidate: formState.isSubmitted });
          }}
        />
        {wrongKey !== undefined && (
          <p role="alert" className="magenta">
            {sentence(wrongKey)}
          </p>
        )}
      </section>
    </EntryForm>
  );
}
