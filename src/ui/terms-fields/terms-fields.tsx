'use client';

import { rightNames } from '@/core/policy/right-names';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { Note } from '@/ui/shell/notice';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { limitPrints, switchRight, type TermsDraft } from '@/ui/terms-fields/switch-right';
import { rightHints } from '@/ui/words/rights-words';
import { MomentField } from '@/ui/time/moment-field';

/** Rights, window and counts of a dispatch. */
export function TermsFields({
  terms,
  onChange,
  said,
  onSaid,
}: {
  readonly terms: TermsDraft;
  readonly onChange: (terms: TermsDraft) => void;
  readonly said: string | null;
  readonly onSaid: (said: string | null) => void;
}) {
  const take = (result: ReturnType<typeof switchRight>) => {
    onChange(result.terms);
    onSaid(result.said);
  };
  return (
    <section className="stack">
      <h2>They may</h2>
      {OFFERED_RIGHTS.map((right) => (
        <div key={right} className="row one-row">
          <FormControlLabel
            sx={{ minWidth: 132 }}
            control={
              <Checkbox
                checked={terms.rights.includes(right)}
                disabled={right === 'read'}
                onChange={(_event, on) => {
                  take(switchRight(terms, right, on));
                }}
              />
            }
            label={rightNames[right]}
          />
          <span className="quiet small">{rightHints[right]}</span>
        </div>
      ))}
      {said !== null && <Note role="status">{said}</Note>}
      <div className="row one-row top above-10">
        <MomentField
          label="Ends"
          value={terms.until}
          onChange={(until) => {
            onChange({ ...terms, until });
          }}
          none="No end"
        />
        <MomentField
          label="Not before"
          value={terms.from}
          onChange={(from) => {
            onChange({ ...terms, from });
          }}
          none="From the dispatch on"
        />
        <TextField
          type="number"
          label="Prints each"
          disabled={!terms.rights.includes('print')}
          value={terms.prints ?? ''}
          onChange={(event) => {
            take(limitPrints(terms, event.target.value));
          }}
          helperText={terms.rights.includes('print') && terms.prints === null ? 'No limit' : ''}
          sx={{ maxWidth: 130 }}
        />
      </div>
      <ConditionsFields
        value={terms.conditions}
        onChange={(conditions) => {
          onChange({ ...terms, conditions });
        }}
      />
    </section>
  );
}
