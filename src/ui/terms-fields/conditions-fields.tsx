'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { HOUR, DAY } from '@/core/base/time';
import { conditionLines } from '@/core/policy/condition-lines';
import type { Conditions, Hours, PassOn, Weekday } from '@/core/policy/conditions';
import { listIn } from '@/ui/words/list-words';

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
const clock = (minute: number): string =>
  `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
const minuteOf = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));

type Props = {
  readonly value: Conditions | undefined;
  readonly onChange: (value: Conditions | undefined) => void;
};

/** Conditions: closed while nothing of it is set. */
export function ConditionsFields({ value, onChange }: Props) {
  const lines = conditionLines(value, 'their zone, or ours where theirs is not known');
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <div className="row">
        <Button
          variant="text"
          onClick={() => {
            setOpen(true);
          }}
        >
          Conditions…
        </Button>
        <span className="quiet">
          {lines.length === 0
            ? 'any number of times, from anywhere, at any hour'
            : lines.join('; ')}
        </span>
      </div>
    );
  return <OpenFields value={value} onChange={onChange} />;
}

function OpenFields({ value = {}, onChange }: Props) {
  const set = (change: Conditions) => {
    const next = Object.fromEntries(
      Object.entries({ ...value, ...change }).filter(([, each]) => each !== null && each !== false),
    );
    onChange(Object.keys(next).length === 0 ? undefined : next);
  };
  const count = (
    name: 'opens' | 'within' | 'devices' | 'proveEvery',
    label: string,
    none: string,
    unit = 1,
  ) => (
    <TextField
      type="number"
      label={label}
      value={value[name] == null ? '' : value[name] / unit}
      helperText={value[name] == null ? none : ''}
      slotProps={{ htmlInput: { min: 1 } }}
      onChange={(event) => {
        const n = Math.floor(Number(event.target.value));
        set({ [name]: n >= 1 ? n * unit : null });
      }}
    />
  );
  const list = (name: 'networks' | 'countries', label: string, none: string) => (
    <TextField
      label={label}
      defaultValue={value[name]?.join(', ') ?? ''}
      helperText={value[name] == null ? none : ''}
      onChange={(event) => {
        set({ [name]: listIn(event.target.value) });
      }}
    />
  );
  return (
    <section className="stack" aria-label="Conditions">
      <h2>Conditions</h2>
      <div className="row" style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        {count('opens', 'Opens each', 'no limit')}
        {count('within', 'Hours from the first open', 'no limit', HOUR)}
        {count('devices', 'Devices each', 'no limit')}
        {count('proveEvery', 'Prove again after days', 'not again', DAY)}
      </div>
      <div className="row" style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        {list(
          'networks',
          'Only from IP address ranges',
          'Empty: from any. Otherwise ranges such as 192.0.2.0/24',
        )}
        {list(
          'countries',
          'Only in the countries',
          'Empty: in any. Otherwise codes such as NO, GB',
        )}
      </div>
      <div className="row">
        <FormControlLabel
          control={
            <Checkbox
              checked={value.keptDevices === true}
              onChange={(_event, on) => {
                set({ keptDevices: on });
              }}
            />
          }
          label="Only on a remembered device"
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={value.hours != null}
              onChange={(_event, on) => {
                set({ hours: on ? OFFICE : null });
              }}
            />
          }
          label="Only at certain hours"
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={value.captureDeterrent === true}
              onChange={(_event, on) => {
                set({ captureDeterrent: on });
              }}
            />
          }
          label="Cover the pages while another window is in front"
        />
      </div>
      <PassOnFields
        passOn={value.passOn ?? null}
        onChange={(passOn) => {
          set({ passOn });
        }}
      />
      {value.hours != null && (
        <HoursFields
          hours={value.hours}
          onChange={(hours) => {
            set({ hours });
          }}
        />
      )}
      {value.captureDeterrent === true && (
        <p className="quiet">
          Done in the reader’s browser. It deters pictures of the screen and does not prevent them.
        </p>
      )}
      {(value.countries != null || value.networks != null) && (
        <p className="quiet">
          The place is estimated from the IP address and can be wrong. The server checks it on every
          page.
        </p>
      )}
    </section>
  );
}

/** Within what the right to pass on holds. */
function PassOnFields({
  passOn,
  onChange,
}: {
  readonly passOn: PassOn | null;
  readonly onChange: (passOn: PassOn | null) => void;
}) {
  const people = (text: string) => {
    const n = Math.floor(Number(text));
    onChange(n < 1 ? null : { domains: null, steps: 1, ...passOn, people: n });
  };
  return (
    <div className="row" style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
      <TextField
        type="number"
        label="Passed on to people"
        value={passOn?.people ?? ''}
        helperText={passOn === null ? 'to nobody' : ''}
        slotProps={{ htmlInput: { min: 1, max: 999 } }}
        onChange={(event) => {
          people(event.target.value);
        }}
      />
      <TextField
        label="At domains"
        disabled={passOn === null}
        defaultValue={passOn?.domains?.join(', ') ?? ''}
        helperText={
          passOn?.domains == null
            ? 'Empty: any email address. Otherwise domains such as yard.example'
            : ''
        }
        onChange={(event) => {
          if (passOn !== null) onChange({ ...passOn, domains: listIn(event.target.value) });
        }}
      />
      <TextField
        type="number"
        label="Steps"
        disabled={passOn === null}
        value={passOn?.steps ?? ''}
        helperText={passOn?.steps === 1 ? 'they cannot pass it on' : ''}
        slotProps={{ htmlInput: { min: 1, max: 9 } }}
        onChange={(event) => {
          if (passOn !== null)
            onChange({
              ...passOn,
              steps: Math.max(1, Math.floor(Number(event.target.value)) || 1),
            });
        }}
      />
    </div>
  );
}

function HoursFields({
  hours,
  onChange,
}: {
  readonly hours: Hours;
  readonly onChange: (hours: Hours) => void;
}) {
  return (
    <div className="row">
      {WEEK.map(({ day, name }) => (
        <button
          key={day}
          type="button"
          className="chip"
          aria-pressed={hours.days.includes(day)}
          onClick={() => {
            onChange({
              ...hours,
              days:
                hours.days.includes(day) && hours.days.length > 1
                  ? hours.days.filter((each) => each !== day)
                  : [...new Set([...hours.days, day])].sort(),
            });
          }}
        >
          {name}
        </button>
      ))}
      <TextField
        type="time"
        label="From"
        sx={{ maxWidth: 150 }}
        value={clock(hours.from)}
        onChange={(event) => {
          onChange({ ...hours, from: minuteOf(event.target.value) });
        }}
      />
      <TextField
        type="time"
        label="To"
        sx={{ maxWidth: 150 }}
        value={clock(hours.to)}
        helperText={hours.to <= hours.from ? 'the next day' : ''}
        onChange={(event) => {
          onChange({ ...hours, to: minuteOf(event.target.value) });
        }}
      />
      <span className="quiet">
        in their zone, or in the organisation’s where theirs is not known
      </span>
    </div>
  );
}
