import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormHelperText from '@mui/material/FormHelperText';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { Hours, Weekday } from '@/core/policy/conditions';
import { ClockField } from '@/ui/time/moment-field';
import type { ConditionFieldProps } from '@/ui/terms-fields/condition-field';

const WEEK: readonly { readonly day: Weekday; readonly name: string }[] = [
  { day: 1, name: 'Mon' },
  { day: 2, name: 'Tue' },
  { day: 3, name: 'Wed' },
  { day: 4, name: 'Thu' },
  { day: 5, name: 'Fri' },
  { day: 6, name: 'Sat' },
  { day: 7, name: 'Sun' },
];
const OFFICE: Hours = { days: [1, 2, 3, 4, 5], from: 8 * 60, to: 17 * 60 };

/** On which days and between which hours a document opens. */
export function HoursField({ value, onChange }: ConditionFieldProps<Hours>) {
  return (
    <div className="stack">
      <FormControlLabel
        control={
          <Checkbox
            checked={value !== null}
            onChange={(_event, on) => {
              onChange(on ? OFFICE : null);
            }}
          />
        }
        label="Only at certain hours"
      />
      {value !== null && <OpenHours hours={value} onChange={onChange} />}
    </div>
  );
}

function OpenHours({
  hours,
  onChange,
}: {
  readonly hours: Hours;
  readonly onChange: (hours: Hours) => void;
}) {
  return (
    <div className="row">
      <ToggleButtonGroup
        aria-label="Days"
        value={hours.days}
        onChange={(_event, days: Weekday[]) => {
          if (days.length > 0) onChange({ ...hours, days: [...days].sort() });
        }}
      >
        {WEEK.map(({ day, name }) => (
          <ToggleButton key={day} value={day}>
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <ClockField
        label="From"
        minute={hours.from}
        required
        onChange={(from) => {
          if (from !== null) onChange({ ...hours, from });
        }}
      />
      <ClockField
        label="To"
        minute={hours.to}
        required
        hint={hours.to <= hours.from ? 'the next day' : ''}
        onChange={(to) => {
          if (to !== null) onChange({ ...hours, to });
        }}
      />
      <FormHelperText>
        in their zone, or in the organisation’s where theirs is not known
      </FormHelperText>
    </div>
  );
}
