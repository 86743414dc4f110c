'use client';

import { languageName } from '@/ui/words/language-words';
import { useState } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useController, type Control } from 'react-hook-form';
import {
  changePersonInput,
  type ChangePersonInput,
  type PersonDetail,
  type PersonFields,
} from '@/contracts/people';
import { FormText, sentence } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { Problem } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

/** What is known about a person, and its correction. */
export function KnownPanel({
  person,
  now,
}: {
  readonly person: PersonDetail;
  readonly now: number;
}) {
  const mayChange = useHolds('dispatch');
  const [open, setOpen] = useState(false);
  const close = () => {
    setOpen(false);
  };
  if (open) return <KnownForm person={person} onClose={close} />;
  return (
    <section className="stack" aria-label="Details">
      <h2>Details</h2>
      <p>
        <Zone zone={person.zone} now={now} />; <Language of={person.language} />.
        {person.ownId !== null && (
          <>
            {' '}
            Identifier <span className="figure">{person.ownId}</span>.
          </>
        )}
      </p>
      {mayChange && (
        <div className="row">
          <Button
            onClick={() => {
              setOpen(true);
            }}
          >
            Edit details
          </Button>
        </div>
      )}
    </section>
  );
}

function Zone({ zone, now }: { readonly zone: string | null; readonly now: number }) {
  if (zone === null) return <span className="quiet">Zone not known</span>;
  const there = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: zone });
  return (
    <>
      {zone}, where it is <span className="figure">{there.format(now)}</span>
    </>
  );
}

function Language({ of }: { readonly of: string | null }) {
  if (of === null) return <span className="quiet">language not known</span>;
  return languageName(of);
}

function KnownForm({
  person,
  onClose,
}: {
  readonly person: PersonDetail;
  readonly onClose: () => void;
}) {
  const { id, name, organisation, zone, language, ownId } = person;
  const { form, busy, problem, onSubmit } = useContractForm({
    schema: changePersonInput,
    start: { id, name, organisation, zone, language, ownId },
    send: (input) => api('POST /api/v1/people/:id', input),
    onDone: onClose,
  });
  const { control } = form;
  return (
    <form className="stack loose" aria-label="Details" noValidate onSubmit={onSubmit}>
      <h2>Details</h2>
      <FormText control={control} name="name" label="Name" />
      <FormText control={control} name="organisation" label="Organisation" />
      <ZoneField control={control} />
      <FormText
        control={control}
        name="language"
        label="Language"
        hint="For example en, nb, de"
        orNull
      />
      <FormText
        control={control}
        name="ownId"
        label="Identifier"
        hint="What your organisation calls them by: a number, a code"
        orNull
      />
      <Problem words={problem} />
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Save
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}

/** A time zone by its name, of those that this browser knows. */
function ZoneField({
  control,
}: {
  readonly control: Control<PersonFields, unknown, ChangePersonInput>;
}) {
  const { field, fieldState } = useController({ control, name: 'zone' });
  const wrong = fieldState.error?.message;
  return (
    <Autocomplete
      freeSolo
      options={Intl.supportedValuesOf('timeZone')}
      inputValue={field.value ?? ''}
      onInputChange={(_event, text) => {
        field.onChange(text === '' ? null : text);
      }}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Time zone"
          error={wrong !== undefined}
          helperText={
            wrong === undefined
              ? 'For example Europe/Oslo. Ends are mailed in this zone.'
              : sentence(wrong)
          }
        />
      )}
    />
  );
}
