'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { WorkSettings } from '@/contracts/settings';

type Props = {
  readonly settings: WorkSettings;
  readonly busy: boolean;
  readonly put: (change: Partial<WorkSettings>, done: string) => void;
};

/** Addresses in a text, one a line or separated by commas. */
function addressesIn(text: string): string[] {
  return text.split(/[\s,;]+/).filter((each) => each !== '');
}

/** Who keeps signed checkpoints of the ledger outside, where nobody who can write to the database reaches them. */
export function KeepersPart({ settings, busy, put }: Props) {
  const [text, setText] = useState(settings.checkpointsTo.join('\n'));
  const isChanged = addressesIn(text).join(' ') !== settings.checkpointsTo.join(' ');
  return (
    <section className="stack part-form" aria-label="Ledger checkpoints">
      <h2>Ledger checkpoints</h2>
      <p className="quiet">
        A signed checkpoint states what the ledger was. Kept outside, it shows later whether
        anything was changed.
      </p>
      <form
        className="stack"
        onSubmit={(event) => {
          event.preventDefault();
          const checkpointsTo = addressesIn(text);
          put(
            { checkpointsTo },
            checkpointsTo.length === 0
              ? 'Checkpoints are no longer mailed.'
              : 'The newest checkpoint is mailed every day on which there is one.',
          );
        }}
      >
        <TextField
          multiline
          minRows={2}
          label="Daily email to"
          value={text}
          onChange={(event) => {
            setText(event.target.value);
          }}
          helperText="Email addresses, one per line"
        />
        <div className="row">
          <Button type="submit" disabled={busy || !isChanged}>
            Save
          </Button>
        </div>
      </form>
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
