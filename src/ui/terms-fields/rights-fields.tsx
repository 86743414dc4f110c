'use client';

import { rightNames } from '@/core/policy/right-names';
import { useState } from 'react';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { OFFERED_RIGHTS, type Right } from '@/core/policy/rights';
import { Note } from '@/ui/shell/notice';
import { limitPrints, switchRight } from '@/ui/terms-fields/switch-right';

export type RightsValue = { readonly rights: readonly Right[]; readonly prints: number | null };

/** Rights and the number of prints, each switch saying what else it switched. */
export function RightsFields({
  value,
  disabled = false,
  onChange,
}: {
  readonly value: RightsValue;
  readonly disabled?: boolean;
  readonly onChange: (value: RightsValue) => void;
}) {
  const [said, setSaid] = useState<string | null>(null);
  const take = (result: ReturnType<typeof switchRight>) => {
    onChange({ rights: result.terms.rights, prints: result.terms.prints });
    setSaid(result.said);
  };
  const terms = { ...value, from: null, until: null };
  return (
    <div className="stack tight">
      <div className="row">
        {OFFERED_RIGHTS.map((right) => (
          <FormControlLabel
            key={right}
            control={
              <Checkbox
                checked={value.rights.includes(right)}
                disabled={disabled || right === 'read'}
                onChange={(_event, on) => {
                  take(switchRight(terms, right, on));
                }}
              />
            }
            label={rightNames[right]}
          />
        ))}
        {value.rights.includes('print') && (
          <TextField
            type="number"
            label="Prints each"
            sx={{ maxWidth: 120 }}
            disabled={disabled}
            value={value.prints ?? ''}
            placeholder="no limit"
            onChange={(event) => {
              take(limitPrints(terms, event.target.value));
            }}
          />
        )}
      </div>
      {said !== null && <Note role="status">{said}</Note>}
    </div>
  );
}
