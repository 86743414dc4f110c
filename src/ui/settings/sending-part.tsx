'use client';

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { workChange, type WorkSettings } from '@/contracts/settings';
import { counted } from '@/core/base/counted';
import { FormList } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

const MINUTES = [0, 2, 5, 10, 30] as const;

type Props = {
  readonly settings: WorkSettings;
  readonly put: (change: Partial<WorkSettings>, done: string) => void;
} & Pick<Attempt, 'attempt' | 'busy'>;

/** How long dispatches are held back, and whose email addresses are inside. */
export function SendingPart({ settings, busy, put, attempt }: Props) {
  return (
    <section className="stack part-form" aria-label="Dispatches">
      <h2>Dispatches</h2>
      <TextField
        select
        label="Held back before they leave"
        value={String(settings.heldFor)}
        disabled={busy}
        onChange={(event) => {
          const minutes = MINUTES.find((each) => String(each) === event.target.value);
          if (minutes !== undefined)
            put(
              { heldFor: minutes },
              minutes === 0
                ? 'Dispatches leave at once from now on.'
                : `Dispatches are held back for ${counted(minutes, 'minute')} from now on.`,
            );
        }}
        helperText="Until then the sender can stop it, and nobody is given anything"
        sx={{ maxWidth: 420 }}
      >
        {MINUTES.map((minutes) => (
          <MenuItem key={minutes} value={String(minutes)}>
            {minutes === 0 ? 'not held back' : counted(minutes, 'minute')}
          </MenuItem>
        ))}
      </TextField>
      <DomainsForm
        key={settings.ownDomains.join(' ')}
        domains={settings.ownDomains}
        attempt={attempt}
      />
    </section>
  );
}

function DomainsForm({
  domains,
  attempt,
}: {
  readonly domains: readonly string[];
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: workChange,
    start: { ownDomains: domains },
    send: async ({ ownDomains }) => {
      await api('POST /api/v1/settings/work', { ownDomains: ownDomains ?? [] });
      return ownDomains?.length ?? 0;
    },
    done: (n) =>
      n === 0
        ? 'Everybody is shown as outside.'
        : `People at ${counted(n, 'domain')} are shown as inside.`,
    attempt,
  });
  return (
    <form className="stack" noValidate onSubmit={onSubmit}>
      <FormList
        control={form.control}
        name="ownDomains"
        label="Your own domains"
        joint={'\n'}
        multiline
        none="empty"
        hint="People there are inside; one domain per line, such as yard.example"
      />
      <div className="row">
        <Button type="submit" disabled={busy || !form.formState.isDirty}>
          Save domains
        </Button>
      </div>
    </form>
  );
}
