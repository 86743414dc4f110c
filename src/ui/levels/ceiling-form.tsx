'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { Controller, type Control } from 'react-hook-form';
import {
  ceilingInput,
  type CeilingFields as Fields,
  type CeilingImpact,
  type CeilingInput,
  type CeilingRow,
} from '@/contracts/ceiling';
import type { TermsPage } from '@/contracts/saved-terms';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import type { Level } from '@/core/policy/levels';
import { AtMostRights } from '@/ui/forms/at-most-rights';
import { OfflineLimit } from '@/ui/levels/offline-limit';
import { FormList, FormNumber } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';
import { LevelChooser } from '@/ui/levels/level-chooser';
import type { RuleDone } from '@/ui/levels/rule-done';
import { levelOf } from '@/ui/words/limit-words';

type Looked = { readonly input: CeilingInput; readonly impact: CeilingImpact };

function limitFields({ rights, countries, networks, ...counts }: Limits): Fields['limits'] {
  return {
    ...counts,
    rights: rights === null ? null : [...rights],
    countries: countries === null ? null : [...countries],
    networks: networks === null ? null : [...networks],
  };
}

/** What was checked, as a route takes it. */
function takes({ limits, ...rest }: CeilingInput): Fields {
  return { ...rest, limits: limitFields(limits) };
}

function isNone(limits: Limits): boolean {
  return Object.values(limits).every((each) => each === null);
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
  /** Whose ceiling; null: it is chosen here. */
  readonly of: Pick<CeilingRow, 'level' | 'subject' | 'name'> | null;
  readonly page: Pick<TermsPage, 'ceilings' | 'markings' | 'folders'>;
  readonly mayChange: boolean;
  readonly onDone: (done: RuleDone) => void;
} & Pick<Attempt, 'attempt' | 'busy'>) {
  const [looked, setLooked] = useState<Looked | null>(null);
  const fieldsAt = (level: Level, subject: string): Fields => {
    const known = page.ceilings.find((each) => each.level === level && each.subject === subject);
    return {
      level,
      subject,
      limits: limitFields(known?.limits ?? NO_LIMITS),
      seen: known?.setAt ?? null,
    };
  };
  const { form, onSubmit } = useContractForm({
    schema: ceilingInput,
    start: fieldsAt(of?.level ?? 'organisation', of?.subject ?? ''),
    send: async (input) => {
      setLooked({ input, impact: await api('POST /api/v1/ceilings/preview', takes(input)) });
    },
    attempt,
    onEdit: () => {
      setLooked(null);
    },
  });
  const { control, watch, reset, setValue } = form;
  const [level, subject, seen] = watch(['level', 'subject', 'seen']);
  const set = ({ input }: Looked) =>
    attempt(async () => {
      const { before, setAt } = await api('POST /api/v1/ceilings', takes(input));
      onDone({
        text: isNone(input.limits)
          ? 'The ceiling is removed.'
          : 'The ceiling is set and applies from now on.',
        undo: () =>
          api('POST /api/v1/ceilings', {
            ...input,
            limits: limitFields(before),
            seen: setAt,
          }),
      });
    });
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <h2>{of === null ? 'New ceiling' : `Ceiling of ${levelOf(of)}`}</h2>
      {of === null && (
        <LevelChooser
          level={level}
          subject={subject}
          page={page}
          onChoose={(next, id) => {
            reset(fieldsAt(next, id));
          }}
        />
      )}
      <LimitFields control={control} disabled={!mayChange} />
      {looked !== null && <ImpactWords impact={looked.impact} idle={looked.impact.idle} />}
      {mayChange && (
        <CeilingActs
          looked={looked}
          isSet={seen !== null}
          busy={busy}
          onRemove={() => {
            // The form is sent as it stands then.
            setValue('limits', limitFields(NO_LIMITS));
          }}
          onSet={(found) => void set(found)}
          onCancel={() => {
            setLooked(null);
          }}
        />
      )}
    </form>
  );
}

/** Looking at whom it touches, and then setting it. */
function CeilingActs({
  looked,
  isSet,
  busy,
  onRemove,
  onSet,
  onCancel,
}: {
  readonly looked: Looked | null;
  readonly isSet: boolean;
  readonly busy: boolean;
  readonly onRemove: () => void;
  readonly onSet: (looked: Looked) => void;
  readonly onCancel: () => void;
}) {
  if (looked === null)
    return (
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Show who is affected
        </Button>
        {isSet && (
          <Button type="submit" disabled={busy} onClick={onRemove}>
            Remove ceiling…
          </Button>
        )}
      </div>
    );
  return (
    <div className="row">
      <Button
        variant="contained"
        disabled={busy}
        onClick={() => {
          onSet(looked);
        }}
      >
        {isNone(looked.input.limits) ? 'Remove ceiling' : 'Set ceiling'}
      </Button>
      <Button variant="text" onClick={onCancel}>
        Cancel
      </Button>
    </div>
  );
}

/** What a ceiling allows at most. */
function LimitFields({
  control,
  disabled,
}: {
  readonly control: Control<Fields, unknown, CeilingInput>;
  readonly disabled: boolean;
}) {
  const number = (name: 'limits.days' | 'limits.prints' | 'limits.opens', label: string) => (
    <FormNumber
      control={control}
      name={name}
      label={label}
      hint="Empty: no limit"
      disabled={disabled}
    />
  );
  return (
    <>
      <Controller
        control={control}
        name="limits.rights"
        render={({ field, fieldState }) => (
          <AtMostRights
            words="The most anybody below may be given"
            value={field.value}
            disabled={disabled}
            onChange={field.onChange}
            wrong={fieldState.error?.message}
          />
        )}
      />
      <div className="row one-row top">
        {number('limits.days', 'Days')}
        {number('limits.prints', 'Prints each')}
        {number('limits.opens', 'Opens each')}
      </div>
      <FormList
        control={control}
        name="limits.countries"
        label="Countries"
        joint=", "
        hint="Empty: from anywhere. Otherwise codes such as NO, GB"
        disabled={disabled}
      />
      <FormList
        control={control}
        name="limits.networks"
        label="IP address ranges"
        joint={'\n'}
        multiline
        hint="Empty: from any. Otherwise ranges such as 192.0.2.0/24"
        disabled={disabled}
      />
      <Controller
        control={control}
        name="limits.passkey"
        render={({ field }) => (
          <FormControlLabel
            control={
              <Checkbox
                checked={field.value === true}
                disabled={disabled}
                onChange={(_event, on) => {
                  field.onChange(on ? true : null);
                }}
              />
            }
            label="A passkey is asked for besides the email address"
          />
        )}
      />
      <Controller
        control={control}
        name="limits.offline"
        render={({ field }) => (
          <OfflineLimit value={field.value} disabled={disabled} onChange={field.onChange} />
        )}
      />
    </>
  );
}
