'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormHelperText from '@mui/material/FormHelperText';
import { rightNames } from '@/core/policy/right-names';
import { OFFERED_RIGHTS, RIGHTS, type Right } from '@/core/policy/rights';
import { sentence } from '@/ui/forms/form-fields';

/** The most that may be given; `null`: every right, which is no limit. Read is always among them. */
export function AtMostRights({
  words,
  value,
  disabled = false,
  onChange,
  wrong,
}: {
  readonly words: string;
  readonly value: readonly Right[] | null;
  readonly disabled?: boolean;
  readonly onChange: (rights: readonly Right[] | null) => void;
  readonly wrong: string | undefined;
}) {
  const allowed: readonly Right[] = value ?? OFFERED_RIGHTS;
  const toggle = (right: Right, on: boolean) => {
    const next = RIGHTS.filter((each) => (each === right ? on : allowed.includes(each)));
    onChange(OFFERED_RIGHTS.every((each) => next.includes(each)) ? null : next);
  };
  return (
    <div role="group" aria-label={words}>
      <span className="quiet">{words}</span>
      <div className="row">
        {OFFERED_RIGHTS.map((right) => (
          <FormControlLabel
            key={right}
            control={
              <Checkbox
                checked={allowed.includes(right)}
                disabled={disabled || right === 'read'}
                onChange={(_event, on) => {
                  toggle(right, on);
                }}
              />
            }
            label={rightNames[right]}
          />
        ))}
      </div>
      {wrong !== undefined && <FormHelperText error>{sentence(wrong)}</FormHelperText>}
    </div>
  );
}
