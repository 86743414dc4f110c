'use client';

import type { ReactNode } from 'react';
import { useRouter } from 'next/navigation';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { DispatchState, DispatchesPage, ListDispatchesInput } from '@/contracts/dispatch-list';
import { ChipLink } from '@/ui/shell/chips';
import { addressWith } from '@/ui/tables/use-address';
import { DayField } from '@/ui/time/moment-field';
import { dispatchStateWords } from '@/ui/words/dispatch-state-words';

/** The list's address with some of the filter changed. */
export function dispatchesAddress(
  filter: ListDispatchesInput,
  change: Partial<ListDispatchesInput> = {},
): string {
  return addressWith('/dispatches', { ...filter, ...change });
}

/** What the list of dispatches is narrowed by: whose, to whom, of what, when, and where they stand. */
export function DispatchFilters({ page }: { readonly page: DispatchesPage }) {
  const { filter, named, senders, organisations, markings } = page;
  const router = useRouter();
  const change = (changed: Partial<ListDispatchesInput>) => {
    router.replace(dispatchesAddress(filter, changed), { scroll: false });
  };
  return (
    <div className="row above-10" role="group" aria-label="Filters">
      <Choice
        label="Sender"
        value={filter.sender}
        choices={senders.map(({ id, name }) => [id, name])}
        onChange={(sender) => {
          change({ sender });
        }}
      />
      <Choice
        label="Organisation"
        value={filter.organisation}
        choices={organisations.map((name) => [name, name])}
        onChange={(organisation) => {
          change({ organisation });
        }}
      />
      {markings.length > 0 && (
        <Choice
          label="Marking"
          value={filter.marking}
          choices={markings.map(({ id, name }) => [id, name])}
          onChange={(marking) => {
            change({ marking });
          }}
        />
      )}
      <Choice
        label="State"
        value={filter.state}
        choices={Object.entries(dispatchStateWords) as [DispatchState, string][]}
        onChange={(state) => {
          change({ state });
        }}
      />
      {(['from', 'to'] as const).map((edge) => (
        <DayField
          key={edge}
          label={edge === 'from' ? 'Sent from' : 'Sent to'}
          value={filter[edge] ?? null}
          onChange={(day) => {
            change({ [edge]: day ?? undefined });
          }}
        />
      ))}
      {(['recipient', 'document'] as const).map(
        (key) =>
          filter[key] !== undefined && (
            <ChipLink
              key={key}
              className="on"
              href={dispatchesAddress(filter, { [key]: undefined })}
              aria-label={`Remove the filter ${named[key] ?? key}`}
            >
              {named[key] ?? 'unknown'} ×
            </ChipLink>
          ),
      )}
    </div>
  );
}

/** One of several values, or any. */
function Choice<Value extends string>({
  label,
  value,
  choices,
  onChange,
}: {
  readonly label: string;
  readonly value: Value | undefined;
  readonly choices: readonly (readonly [Value, ReactNode])[];
  readonly onChange: (value: Value | undefined) => void;
}) {
  return (
    <TextField
      select
      label={label}
      sx={{ width: 142, flex: 'none' }}
      value={value ?? ''}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={({ target }) => {
        onChange(target.value === '' ? undefined : (target.value as Value));
      }}
    >
      <MenuItem value="">Any</MenuItem>
      {choices.map(([each, words]) => (
        <MenuItem key={each} value={each}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
