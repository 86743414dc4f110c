'use client';

import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { GroupRow } from '@/contracts/people';
import type { GroupId } from '@/core/base/ids';

/** A group that is there, a new one by its name, or none. */
export type ChosenGroup = { readonly id: GroupId } | { readonly name: string } | null;

/** Chooses a group by its name; a name that no group has makes a new one. */
export function GroupChoice({
  groups,
  value,
  onChange,
}: {
  readonly groups: readonly GroupRow[];
  readonly value: ChosenGroup;
  readonly onChange: (group: ChosenGroup) => void;
}) {
  const chosen = value !== null && 'id' in value ? groups.find(({ id }) => id === value.id) : null;
  const text = chosen?.name ?? (value !== null && 'name' in value ? value.name : '');
  return (
    <Autocomplete
      freeSolo
      className="picker"
      options={groups.map(({ name }) => name)}
      inputValue={text}
      onInputChange={(_event, typed) => {
        const name = typed.trim();
        const known = groups.find((each) => each.name.toLowerCase() === name.toLowerCase());
        if (name === '') onChange(null);
        else onChange(known === undefined ? { name: typed } : { id: known.id });
      }}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Group"
          placeholder="none"
          helperText={value !== null && 'name' in value ? 'A new group' : ''}
        />
      )}
    />
  );
}
