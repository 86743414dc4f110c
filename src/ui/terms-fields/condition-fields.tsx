import { useState } from 'react';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { DAY, HOUR } from '@/core/base/time';
import type { ConditionName, ConditionValue } from '@/core/policy/conditions';
import type { ConditionField, ConditionFieldProps } from '@/ui/terms-fields/condition-field';
import { OfflineField } from '@/ui/terms-fields/offline-field';
import { HoursField } from '@/ui/terms-fields/hours-field';
import { PassOnField } from '@/ui/terms-fields/pass-on-field';
import { listIn } from '@/ui/words/list-words';

/** A whole number of `unit`; empty: not asked. */
function countField(label: string, none: string, unit = 1): ConditionField<number> {
  function CountField({ value, onChange }: ConditionFieldProps<number>) {
    return (
      <TextField
        type="number"
        label={label}
        value={value === null ? '' : value / unit}
        helperText={value === null ? none : ' '}
        slotProps={{ htmlInput: { min: 1 } }}
        onChange={(event) => {
          const n = Math.floor(Number(event.target.value));
          onChange(n >= 1 ? n * unit : null);
        }}
      />
    );
  }
  return { line: 'counts', Field: CountField };
}

/** A list as it is typed; empty: not asked. */
function listField(label: string, none: string): ConditionField<readonly string[]> {
  function ListField({ value, onChange }: ConditionFieldProps<readonly string[]>) {
    // What is typed stays as it is typed, separators and all.
    const [typed, setTyped] = useState(value?.join(', ') ?? '');
    return (
      <TextField
        label={label}
        value={typed}
        helperText={
          value === null
            ? none
            : 'Estimated from the IP address, which can be wrong. Checked on every page.'
        }
        onChange={(event) => {
          setTyped(event.target.value);
          onChange(listIn(event.target.value));
        }}
      />
    );
  }
  return { line: 'places', Field: ListField };
}

function switchField(label: string): ConditionField<boolean> {
  function SwitchField({ value, onChange }: ConditionFieldProps<boolean>) {
    return (
      <FormControlLabel
        control={
          <Checkbox
            checked={value === true}
            onChange={(_event, on) => {
              onChange(on ? true : null);
            }}
          />
        }
        label={label}
      />
    );
  }
  return { line: 'switches', Field: SwitchField };
}

/** The field of each condition. */
export const CONDITION_FIELDS: {
  readonly [Name in ConditionName]-?: ConditionField<ConditionValue<Name>>;
} = {
  opens: countField('Opens each', 'no limit'),
  within: countField('Hours from the first open', 'no limit', HOUR),
  devices: countField('Devices each', 'no limit'),
  proveEvery: countField('Prove again after days', 'not again', DAY),
  networks: listField(
    'Only from IP address ranges',
    'Empty: from any. Otherwise ranges such as 192.0.2.0/24',
  ),
  countries: listField('Only in the countries', 'Empty: in any. Otherwise codes such as NO, GB'),
  rememberedDevice: switchField('Only on a remembered device'),
  passkey: switchField('Only with a passkey besides the email address'),
  captureDeterrent: switchField(
    'Cover the pages while another window is in front: it deters pictures of the screen, and does not prevent them',
  ),
  hours: { line: 'own', Field: HoursField },
  passOn: { line: 'own', Field: PassOnField },
  offline: { line: 'own', Field: OfflineField },
};
