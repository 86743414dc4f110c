'use client';

import { rightNames } from '@/core/policy/right-names';
import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { CeilingChanged, CeilingImpact, CeilingRow } from '@/contracts/ceiling';
import type { TermsPage } from '@/contracts/saved-terms';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import type { Level } from '@/core/policy/levels';
import { OFFERED_RIGHTS, RIGHTS } from '@/core/policy/rights';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';
import { ImpactWords } from '@/ui/levels/impact-words';
import { LevelChooser } from '@/ui/levels/level-chooser';
import { levelOf } from '@/ui/words/limit-words';
import { listIn } from '@/ui/words/list-words';

type Fields = Readonly<Record<'days' | 'prints' | 'opens' | 'countries' | 'networks', string>>;

const numberOf = (text: string): number | null => (text === '' ? null : Math.floor(Number(text)));

function fieldsOf({ days, prints, opens, countries, networks }: Limits): Fields {
  return {
    days: String(days ?? ''),
    prints: String(prints ?? ''),
    opens: String(opens ?? ''),
    countries: countries?.join(', ') ?? '',
    networks: networks?.join('\n') ?? '',
  };
}

/** One ceiling: what it allows at most, and whom a change would touch, read before it is made. */
export function CeilingForm({
  of,
  page,
  mayChange,
  attempt,
  busy,
  onDone,
}: {
  /** Whose ceiling; null: it is chosen here. */ readonly of: Pick<
    CeilingRow,
    'level' | 'subject' | 'name'
  > | null;
  readonly page: Pick<TermsPage, 'ceilings' | 'markings' | 'folders'>;
  readonly mayChange: boolean;
  readonly onDone: (done: RuleDone) => void;
} & Pick<Attempt, 'attempt' | 'busy'>) {
  const [level, setLevel] = useState<Level>(of?.level ?? 'organisation');
  const [subject, setSubject] = useState(of?.subject ?? '');
  const ceilingOf = (at: Level, id: string) =>
    page.ceilings.find((each) => each.level === at && each.subject === id) ?? null;
  const known = ceilingOf(level, subject);
  const [rights, setRights] = useState<Limits['rights']>(known?.limits.rights ?? null);
  const [fields, setFields] = useState(fieldsOf(known?.limits ?? NO_LIMITS));
  const [impact, setImpact] = useState<CeilingImpact | null>(null);
  const change =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      setImpact(null);
    };
  const allowed = rights ?? OFFERED_RIGHTS;
  const limits: Limits = {
    rights,
    days: numberOf(fields.days),
    prints: numberOf(fields.prints),
    opens: numberOf(fields.opens),
    countries: listIn(fields.countries),
    networks: listIn(fields.networks),
  };
  const put = (to: Limits, seen: number | null) =>
    call<CeilingChanged>('POST', '/api/v1/ceilings', { level, subject, limits: to, seen });
  const look = (to: Limits) =>
    attempt(async () => {
      setImpact(
        await call<CeilingImpact>('POST', '/api/v1/ceilings/preview', {
          level,
          subject,
          limits: to,
          seen: null,
        }),
      );
    });
  const set = (to: Limits, text: string) =>
    attempt(async () => {
      const { before, setAt } = await put(to, known?.setAt ?? null);
      onDone({ text, undo: () => put(before, setAt) });
    });
  const choose = (next: Level, id: string) => {
    const there = ceilingOf(next, id)?.limits ?? NO_LIMITS;
    setLevel(next);
    setSubject(id);
    setRights(there.rights);
    setFields(fieldsOf(there));
    setImpact(null);
  };
  const text = (
    name: keyof Fields,
    label: string,
    help: string,
    props: { readonly type?: string; readonly multiline?: boolean } = {},
  ) => (
    <TextField
      label={label}
      {...props}
      disabled={!mayChange}
      value={fields[name]}
      helperText={fields[name] === '' ? help : ''}
      onChange={(event) => {
        change(setFields)({ ...fields, [name]: event.target.value });
      }}
      slotProps={{ htmlInput: props.type === 'number' ? { min: 1 } : {} }}
    />
  );
  return (
    <form
      className="stack loose"
      onSubmit={(event) => {
        event.preventDefault();
        void look(limits);
      }}
    >
      <h2>{of === null ? 'New ceiling' : `Ceiling of ${levelOf(of)}`}</h2>
      {of === null && (
        <LevelChooser level={level} subject={subject} page={page} onChoose={choose} />
      )}
      <div>
        <span className="quiet">The most anybody below may be given</span>
        <div className="row">
          {OFFERED_RIGHTS.map((right) => (
            <FormControlLabel
              key={right}
              control={
                <Checkbox
                  checked={allowed.includes(right)}
                  disabled={!mayChange || right === 'read'}
                  onChange={(_event, on) => {
                    change(setRights)(
                      RIGHTS.filter((each) => (each === right ? on : allowed.includes(each))),
                    );
                  }}
                />
              }
              label={rightNames[right]}
            />
          ))}
        </div>
      </div>
      <div className="row one-row">
        {text('days', 'Days', 'no limit', { type: 'number' })}
        {text('prints', 'Prints each', 'no limit', { type: 'number' })}
        {text('opens', 'Opens each', 'no limit', { type: 'number' })}
      </div>
      {text('countries', 'Countries', 'Empty: from anywhere. Otherwise codes such as NO, GB')}
      {text(
        'networks',
        'IP address ranges',
        'Empty: from any. Otherwise ranges such as 192.0.2.0/24',
        { multiline: true },
      )}
      {mayChange && impact === null && (
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            Show who is affected
          </Button>
          {known !== null && (
            <Button
              disabled={busy}
              onClick={() => {
                setRights(null);
                setFields(fieldsOf(NO_LIMITS));
                void look(NO_LIMITS);
              }}
            >
              Remove ceiling…
            </Button>
          )}
        </div>
      )}
      {impact !== null && <ImpactWords impact={impact} idle={impact.idle} />}
      {impact !== null && mayChange && (
        <div className="row">
          <Button
            variant="contained"
            disabled={busy}
            onClick={() =>
              void set(
                limits,
                Object.values(limits).every((each) => each === null)
                  ? 'The ceiling is removed.'
                  : 'The ceiling is set and applies from now on.',
              )
            }
          >
            {Object.values(limits).every((each) => each === null)
              ? 'Remove ceiling'
              : 'Set ceiling'}
          </Button>
          <Button
            variant="text"
            onClick={() => {
              setImpact(null);
            }}
          >
            Cancel
          </Button>
        </div>
      )}
    </form>
  );
}
