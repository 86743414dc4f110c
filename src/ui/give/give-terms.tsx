'use client';

import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { Lacking } from '@/contracts/lacking';
import { counted } from '@/core/base/counted';
import { rightsLine } from '@/core/policy/rights-line';
import type { SavedTerms } from '@/core/policy/saved-terms';

/** What stands for the terms that nobody chose. */
export const AS_USUAL = 'as-usual';

type Named = SavedTerms & { readonly id: string; readonly name: string };

function offered({ begin, terms }: Lacking): readonly Named[] {
  return [{ ...begin, id: AS_USUAL, name: 'Default' }, ...terms];
}

/** The terms that were chosen, by their id; those that nobody chose where there are none such. */
export function chosenTerms(lacking: Lacking, id: string): Named {
  const found = offered(lacking).find((each) => each.id === id);
  return found ?? { ...lacking.begin, id: AS_USUAL, name: 'Default' };
}

/** On which terms it is given. */
export function GiveTerms({
  lacking,
  chosen,
  onChoose,
}: {
  readonly lacking: Lacking;
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
}) {
  const terms = chosenTerms(lacking, chosen);
  const end = terms.days === null ? 'no end' : counted(terms.days, 'day');
  return (
    <TextField
      select
      label="Terms"
      className="above-8"
      value={terms.id}
      onChange={({ target }) => {
        onChoose(target.value);
      }}
      helperText={`${rightsLine(terms.rights, terms.prints)}, ${end}`}
    >
      {offered(lacking).map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
