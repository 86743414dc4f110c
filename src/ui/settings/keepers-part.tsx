'use client';

import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { workChange, type WorkSettings } from '@/contracts/settings';
import { FormList } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

type Props = {
  readonly settings: WorkSettings;
  readonly put: (change: Partial<WorkSettings>, done: string) => void;
} & Pick<Attempt, 'attempt' | 'busy'>;

/** Who keeps signed checkpoints of the ledger outside, where nobody who can write to the database reaches them. */
export function KeepersPart({ settings, busy, put, attempt }: Props) {
  return (
    <section className="stack part-form" aria-label="Ledger checkpoints">
      <h2>Ledger checkpoints</h2>
      <p className="quiet">
        A signed checkpoint states what the ledger was. Kept outside, it shows later whether
        anything was changed.
      </p>
      <KeepersForm addresses={settings.checkpointsTo} attempt={attempt} />
      <FormControlLabel
        control={
          <Checkbox
            checked={settings.checkpointsOpen}
            disabled={busy}
            onChange={(_event, on) => {
              put(
                { checkpointsOpen: on },
                on
                  ? 'The newest checkpoint can be fetched without signing in.'
                  : 'The newest checkpoint can no longer be fetched without signing in.',
              );
            }}
          />
        }
        label="Let anyone fetch the newest checkpoint without signing in"
      />
      {settings.checkpointsOpen && (
        <p className="quiet">
          It is at <code className="figure">/api/v1/checkpoint</code> and says how many entries
          there are, and nothing about them.
        </p>
      )}
    </section>
  );
}

function KeepersForm({
  addresses,
  attempt,
}: {
  readonly addresses: readonly string[];
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: workChange,
    start: { checkpointsTo: addresses },
    send: async ({ checkpointsTo }) => {
      await api('POST /api/v1/settings/work', { checkpointsTo: checkpointsTo ?? [] });
      return checkpointsTo?.length ?? 0;
    },
    done: (n) =>
      n === 0
        ? 'Checkpoints are no longer mailed.'
        : 'The newest checkpoint is mailed every day on which there is one.',
    attempt,
  });
  return (
    <form className="stack" noValidate onSubmit={onSubmit}>
      <FormList
        control={form.control}
        name="checkpointsTo"
        label="Daily email to"
        joint={'\n'}
        multiline
        none="empty"
        hint="Email addresses, one per line"
      />
      <div className="row">
        <Button type="submit" disabled={busy || !form.formState.isDirty}>
          Save
        </Button>
      </div>
    </form>
  );
}
