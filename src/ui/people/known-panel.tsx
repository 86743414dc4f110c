'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { PersonDetail } from '@/contracts/people';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
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
  const { problem, attempt } = useAttempt();
  const save = async (form: FormData) => {
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? value.trim() : '';
    };
    const change = {
      name: text('name'),
      organisation: text('organisation'),
      zone: text('zone') === '' ? null : text('zone'),
      language: text('language') === '' ? null : text('language'),
    };
    if (await attempt(() => call('POST', `/api/v1/people/${person.id}`, change))) setOpen(false);
  };
  const there =
    person.zone === null
      ? null
      : new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: person.zone }).format(now);
  const language =
    person.language === null
      ? null
      : (new Intl.DisplayNames('en', { type: 'language' }).of(person.language) ?? person.language);
  if (!open) {
    return (
      <section className="stack" aria-label="Details">
        <h2>Details</h2>
        <p>
          {person.zone === null ? (
            <span className="quiet">Zone not known</span>
          ) : (
            <>
              {person.zone}, where it is <span className="figure">{there}</span>
            </>
          )}
          ; {language ?? <span className="quiet">language not known</span>}.
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
  return (
    <form
      className="stack loose"
      aria-label="Details"
      onSubmit={(event) => {
        event.preventDefault();
        void save(new FormData(event.currentTarget));
      }}
    >
      <h2>Details</h2>
      <TextField name="name" label="Name" defaultValue={person.name} />
      <TextField name="organisation" label="Organisation" defaultValue={person.organisation} />
      <TextField
        name="zone"
        label="Time zone"
        defaultValue={person.zone ?? ''}
        helperText="For example Europe/Oslo. Ends are mailed in this zone."
        slotProps={{ htmlInput: { list: 'zones' } }}
      />
      <datalist id="zones">
        {Intl.supportedValuesOf('timeZone').map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
      <TextField
        name="language"
        label="Language"
        defaultValue={person.language ?? ''}
        helperText="For example en, nb, de"
      />
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      <div className="row">
        <Button type="submit" variant="contained">
          Save
        </Button>
        <Button
          onClick={() => {
            setOpen(false);
          }}
        >
          Cancel
        </Button>
      </div>
    </form>
  );
}
