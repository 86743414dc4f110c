'use client';

import { rightNames } from '@/core/policy/right-names';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { limitPrints, switchRight, type TermsDraft } from '@/ui/terms-fields/switch-right';
import { rightHints } from '@/ui/words/rights-words';
import { fromLocalField, toLocalField, zoneName } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';

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
  const zone = useZone();
  const take = (result: ReturnType<typeof switchRight>) => {
    onChange(result.terms);
    onSaid(result.said);
  };
  return (
    <section className="stack">
      <h2>They may</h2>
      {OFFERED_RIGHTS.map((right) => (
        <div key={right} className="row" style={{ flexWrap: 'nowrap', alignItems: 'baseline' }}>
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
          <span className="quiet" style={{ fontSize: 12.5 }}>
            {rightHints[right]}
          </span>
        </div>
      ))}
      {said !== null && (
        <p role="status" className="notice">
          {said}
        </p>
      )}
      <div className="row" style={{ flexWrap: 'nowrap', alignItems: 'flex-start', marginTop: 10 }}>
        <TextField
          type="datetime-local"
          label={`Ends, in ${zone}`}
          value={terms.until === null ? '' : toLocalField(terms.until)}
          onChange={(event) => {
            onChange({ ...terms, until: fromLocalField(event.target.value) });
          }}
          helperText={terms.until === null ? 'No end' : zoneName(terms.until, zone)}
        />
        <TextField
          type="datetime-local"
          label="Not before"
          value={terms.from === null ? '' : toLocalField(terms.from)}
          onChange={(event) => {
            onChange({ ...terms, from: fromLocalField(event.target.value) });
          }}
          helperText={terms.from === null ? 'From the dispatch on' : zoneName(terms.from, zone)}
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
