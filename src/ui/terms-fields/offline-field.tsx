import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormHelperText from '@mui/material/FormHelperText';
import TextField from '@mui/material/TextField';
import { HOUR } from '@/core/base/time';
import type { ConditionFieldProps } from '@/ui/terms-fields/condition-field';

/** Whether a document opens on a person's own machine as well, and for how long without asking again. */
export function OfflineField({ value, onChange }: ConditionFieldProps<number>) {
  return (
    <div className="stack">
      <FormControlLabel
        control={
          <Checkbox
            checked={value !== null}
            onChange={(_event, on) => {
              onChange(on ? 0 : null);
            }}
          />
        }
        label="May be opened on their own machine, from the protected file"
      />
      {value !== null && (
        <>
          <TextField
            type="number"
            label="Hours readable there without asking again"
            value={value === 0 ? '' : value / HOUR}
            helperText={value === 0 ? 'Empty: it asks at every open' : ' '}
            slotProps={{ htmlInput: { min: 0, max: 90 * 24 } }}
            onChange={(event) => {
              onChange(Math.max(0, Math.floor(Number(event.target.value))) * HOUR);
            }}
          />
          <FormHelperText>
            From the first open there, the key is on their machine: copying, printing and keeping
            are then withheld by the reader alone, which a determined person can get around. What is
            opened as pages from here stays as strict as it is.
          </FormHelperText>
        </>
      )}
    </div>
  );
}
