import { useState } from 'react';
import TextField from '@mui/material/TextField';
import type { PassOn } from '@/core/policy/conditions';
import type { ConditionFieldProps } from '@/ui/terms-fields/condition-field';
import { listIn } from '@/ui/words/list-words';

/** The whole number that was typed; 0: none. */
function countIn(text: string): number {
  return Math.max(0, Math.floor(Number(text)) || 0);
}

/** Within what the right to pass on holds. */
export function PassOnField({ value, onChange }: ConditionFieldProps<PassOn>) {
  const isOff = value === null;
  const { people = '', domains: listed = null, steps = '' } = value ?? {};
  const [domains, setDomains] = useState(listed?.join(', ') ?? '');
  return (
    <div className="fields">
      <TextField
        type="number"
        label="Passed on to people"
        value={people}
        helperText={isOff ? 'to nobody' : ' '}
        slotProps={{ htmlInput: { min: 1, max: 999 } }}
        onChange={(event) => {
          const next = countIn(event.target.value);
          onChange(next < 1 ? null : { domains: null, steps: 1, ...value, people: next });
        }}
      />
      <TextField
        label="At domains"
        disabled={isOff}
        value={domains}
        helperText={
          listed === null ? 'Empty: any email address. Otherwise domains such as yard.example' : ' '
        }
        onChange={(event) => {
          setDomains(event.target.value);
          if (value !== null) onChange({ ...value, domains: listIn(event.target.value) });
        }}
      />
      <TextField
        type="number"
        label="Steps"
        disabled={isOff}
        value={steps}
        helperText={steps === 1 ? 'they cannot pass it on' : ' '}
        slotProps={{ htmlInput: { min: 1, max: 9 } }}
        onChange={(event) => {
          if (value !== null)
            onChange({ ...value, steps: Math.max(1, countIn(event.target.value)) });
        }}
      />
    </div>
  );
}
