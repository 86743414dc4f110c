'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { Controller } from 'react-hook-form';
import { accessThenInput, type AccessThen, type AccessThenInput } from '@/contracts/access-then';
import { AccessThenAnswer, type AskedThen, type Names } from '@/ui/access-then/access-then-answer';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { Problem } from '@/ui/shell/notice';
import { MomentField } from '@/ui/time/moment-field';

type Props = {
  readonly of: AccessThenInput['of'];
  /** What tells the rows apart. */
  readonly names: Names;
};

/** Who could open something on a day that is over, compared with another day or with somebody else. */
export function AccessThenPanel({ of, names }: Props) {
  const [open, setOpen] = useState(false);
  if (open)
    return (
      <AccessThenForm
        of={of}
        names={names}
        onClose={() => {
          setOpen(false);
        }}
      />
    );
  return (
    <div className="row">
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        {'recipient' in of ? 'Show past access' : 'Show who could open it before'}
      </Button>
    </div>
  );
}

function AccessThenForm({ of, names, onClose }: Props & { readonly onClose: () => void }) {
  const [found, setFound] = useState<(AskedThen & { readonly answer: AccessThen }) | null>(null);
  const { form, busy, problem, onSubmit } = useContractForm({
    schema: accessThenInput,
    start: { of, other: '' },
    send: async (input) => ({
      at: input.at,
      also: input.also ?? null,
      answer: await api('POST /api/v1/access-then', input),
    }),
    onDone: setFound,
  });
  const { control } = form;
  return (
    <section className="stack" aria-label="Past access">
      <h2>Past access</h2>
      <form className="stack loose" noValidate onSubmit={onSubmit}>
        <Controller
          control={control}
          name="at"
          render={({ field, fieldState }) => (
            <MomentField
              label="On"
              value={fieldState.isDirty ? field.value : null}
              onChange={(at) => {
                field.onChange(at ?? undefined);
              }}
              none={
                fieldState.error === undefined
                  ? 'A day and time'
                  : 'Enter the day and time to look at.'
              }
              required
            />
          )}
        />
        <Controller
          control={control}
          name="also"
          render={({ field }) => (
            <MomentField
              label="Compare with another day"
              value={field.value ?? null}
              onChange={field.onChange}
              none="Nothing to compare with"
            />
          )}
        />
        {'recipient' in of && (
          <FormText control={control} name="other" label="Or with another person’s email address" />
        )}
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            Show access
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
      <Problem words={problem} />
      {found !== null && <AccessThenAnswer asked={found} answer={found.answer} names={names} />}
    </section>
  );
}
