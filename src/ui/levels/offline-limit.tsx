import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { HOUR } from '@/core/base/time';
import type { Limits } from '@/core/policy/ceiling';

type Kind = 'any' | 'never' | 'asking' | 'hours';

const KINDS: Readonly<Record<Kind, string>> = {
  any: 'As each dispatch says',
  never: 'Never: pages are drawn here alone',
  asking: 'Yes, asking at every open',
  hours: 'Yes, and readable for some hours without asking',
};

function kindOf(limit: Limits['offline']): Kind {
  if (limit === null) return 'any';
  if (limit === 'never') return 'never';
  return limit === 0 ? 'asking' : 'hours';
}

const BEGINS: Readonly<Record<Kind, Limits['offline']>> = {
  any: null,
  never: 'never',
  asking: 0,
  hours: 24 * HOUR,
};

/** Whether documents below may be opened on people's own machines, and how long without asking again. */
export function OfflineLimit({
  value,
  disabled,
  onChange,
}: {
  readonly value: Limits['offline'];
  readonly disabled: boolean;
  readonly onChange: (value: Limits['offline']) => void;
}) {
  return (
    <div className="row one-row top">
      <TextField
        select
        label="On people’s own machines"
        value={kindOf(value)}
        disabled={disabled}
        onChange={({ target }) => {
          onChange(BEGINS[target.value as Kind]);
        }}
      >
        {Object.entries(KINDS).map(([kind, words]) => (
          <MenuItem key={kind} value={kind}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {typeof value === 'number' && value > 0 && (
        <TextField
          type="number"
          label="Hours"
          value={value / HOUR}
          disabled={disabled}
          slotProps={{ htmlInput: { min: 1, max: 90 * 24 } }}
          onChange={({ target }) => {
            onChange(Math.max(1, Math.floor(Number(target.value))) * HOUR);
          }}
        />
      )}
    </div>
  );
}
