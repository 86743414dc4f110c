'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { changedRights, type RightsChange as Change } from '@/core/policy/changed-rights';
import { rightNames } from '@/core/policy/right-names';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { rightsLine } from '@/core/policy/rights-line';
import type { Changes } from '@/ui/grants/use-changes';
import { RightsFields, type RightsValue } from '@/ui/terms-fields/rights-fields';

const HOW_WORDS: Record<Change['how'], string> = {
  add: 'Also allow',
  take: 'No longer allow',
  set: 'Set alike',
};
const READS: RightsValue = { rights: ['read'], prints: null };

function lineOf(held: RightsValue): string {
  return rightsLine(held.rights, held.prints);
}

/** Changes the rights of the picked grants: beside what each has, or alike for all, with what comes of it. */
export function RightsChange({
  grants,
  changes,
  onDone,
}: {
  readonly grants: readonly GrantRow[];
  readonly changes: Changes;
  readonly onDone: () => void;
}) {
  const [first] = grants;
  const [how, setHow] = useState<Change['how']>('add');
  const [value, setValue] = useState(READS);
  const change: Change = how === 'take' ? { how, rights: value.rights } : { how, ...value };
  const touched = grants.filter((grant) => lineOf(changedRights(grant, change)) !== lineOf(grant));
  return (
    <div className="stack lines-bar" role="group" aria-label="Change rights">
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="How"
        value={how}
        onChange={(_event, chosen: Change['how'] | null) => {
          if (chosen === null) return;
          setHow(chosen);
          setValue(
            chosen === 'set' && first !== undefined
              ? { rights: first.rights, prints: first.prints }
              : READS,
          );
        }}
      >
        {(['add', 'take', 'set'] as const).map((each) => (
          <ToggleButton key={each} value={each}>
            {HOW_WORDS[each]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {how === 'set' ? (
        <RightsFields value={value} onChange={setValue} />
      ) : (
        <SomeRights value={value} prints={how === 'add'} onChange={setValue} />
      )}
      <div className="row">
        <Outcome grants={grants} touched={touched} change={change} />
        <Button
          variant="contained"
          disabled={changes.busy || touched.length === 0}
          onClick={() => void changes.changeRights(touched, change).then(onDone)}
        >
          Change {counted(touched.length, 'grant')}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </div>
  );
}

/** Rights one by one, whatever rests on what: each grant is asked for itself what it comes to. */
function SomeRights({
  value: { rights, prints: most },
  prints,
  onChange,
}: {
  readonly value: RightsValue;
  /** Whether those who may not print yet can be given a number of prints. */
  readonly prints: boolean;
  readonly onChange: (value: RightsValue) => void;
}) {
  return (
    <div className="row">
      {OFFERED_RIGHTS.filter((right) => right !== 'read').map((right) => (
        <FormControlLabel
          key={right}
          control={
            <Checkbox
              checked={rights.includes(right)}
              onChange={(_event, on) => {
                onChange({
                  rights: on ? [...rights, right] : rights.filter((each) => each !== right),
                  prints: most,
                });
              }}
            />
          }
          label={rightNames[right]}
        />
      ))}
      {prints && rights.includes('print') && (
        <TextField
          type="number"
          label="Prints each"
          className="count"
          placeholder="no limit"
          value={most ?? ''}
          onChange={({ target }) => {
            onChange({ rights, prints: target.value === '' ? null : countOf(target.value) });
          }}
        />
      )}
    </div>
  );
}

function countOf(text: string): number {
  return Math.max(1, Math.min(999, Math.floor(Number(text)) || 1));
}

/** What each comes to: before and after, where they are few; otherwise how many change. */
function Outcome({
  grants,
  touched,
  change,
}: {
  readonly grants: readonly GrantRow[];
  readonly touched: readonly GrantRow[];
  readonly change: Change;
}) {
  const steps = new Set(
    touched.map((grant) => `${lineOf(grant)} → ${lineOf(changedRights(grant, change))}`),
  );
  const same = grants.length - touched.length;
  return (
    <span role="status">
      {touched.length === 0
        ? 'Nothing changes yet.'
        : steps.size <= 3
          ? `${[...steps].join('; ')}.`
          : `${counted(touched.length, 'grant')} change in ${String(steps.size)} ways.`}
      {same > 0 && touched.length > 0 && ` ${counted(same, 'grant')} stay as they are.`}
      {touched.length > 0 &&
        ' This takes effect on the next page that is shown. Ends stay as they are.'}
    </span>
  );
}
