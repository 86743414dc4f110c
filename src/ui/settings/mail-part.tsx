'use client';

import Button from '@mui/material/Button';
import { workChange, type WorkSettings } from '@/contracts/settings';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

/** How the organisation's mail looks: its colour above, its signature below. */
export function MailPart({
  settings: { mailColour, mailSignature },
  attempt,
}: {
  readonly settings: WorkSettings;
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: workChange,
    start: { mailColour, mailSignature },
    send: (change) => api('POST /api/v1/settings/work', change),
    done: () => 'Messages look like this from now on; those that went out stay as they were.',
    attempt,
  });
  return (
    <section className="stack part-form" aria-label="Mail">
      <h2>Mail</h2>
      <p className="quiet">
        The organisation’s name stands above messages. An answer to what was dispatched reaches the
        person who sent it.
      </p>
      <form className="stack" noValidate onSubmit={onSubmit}>
        <FormText
          control={form.control}
          name="mailColour"
          label="Colour above messages"
          hint="For example #1f6f78"
        />
        <FormText
          control={form.control}
          name="mailSignature"
          label="Signature below messages"
          multiline
          hint="For example an address, a telephone number, and what the law asks for"
        />
        <div className="row">
          <Button type="submit" disabled={busy || !form.formState.isDirty}>
            Save
          </Button>
        </div>
      </form>
    </section>
  );
}
