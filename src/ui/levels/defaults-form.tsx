'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { Controller } from 'react-hook-form';
import {
  defaultsInput,
  type DefaultsImpact,
  type DefaultsInput,
  type DefaultsRow,
} from '@/contracts/defaults';
import type { TermsPage } from '@/contracts/saved-terms';
import { NO_DEFAULTS, setsAnything, type Defaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import { sentence } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';
import { LevelChooser } from '@/ui/levels/level-chooser';
import type { RuleDone } from '@/ui/levels/rule-done';
import { RightsFields } from '@/ui/terms-fields/rights-fields';
import { WatermarkField } from '@/ui/watermark/watermark-field';
import { levelOf } from '@/ui/words/limit-words';

type Looked = { readonly input: DefaultsInput; readonly impact: DefaultsImpact };
type Props = {
  /** Whose; null: it is chosen here. */
  readonly of: Pick<DefaultsRow, 'level' | 'subject' | 'name'> | null;
  readonly page: Pick<TermsPage, 'defaults' | 'markings' | 'folders'>;
  readonly mayChange: boolean;
  readonly onDone: (done: RuleDone) => void;
} & Pick<Attempt, 'attempt' | 'busy'>;

/**
 * What dispatches below a level begin with, and what stands on every page there; whom the latter
 * touches is read before it is made.
 */
export function DefaultsForm({ of, page, mayChange, attempt, busy, onDone }: Props) {
  const [looked, setLooked] = useState<Looked | null>(null);
  const fieldsAt = (level: Level, subject: string): DefaultsInput => {
    const known = page.defaults.find((each) => each.level === level && each.subject === subject);
    return {
      level,
      subject,
      defaults: known?.defaults ?? NO_DEFAULTS,
      watermark: known?.watermark ?? [],
      seen: known?.setAt ?? null,
    };
  };
  const { form, onSubmit } = useContractForm({
    schema: defaultsInput,
    start: fieldsAt(of?.level ?? 'organisation', of?.subject ?? ''),
    send: async (input) => {
      setLooked({ input, impact: await api('POST /api/v1/defaults/preview', input) });
    },
    attempt,
    onEdit: () => {
      setLooked(null);
    },
  });
  const { control, watch, reset } = form;
  const [level, subject] = watch(['level', 'subject']);
  const set = ({ input }: Looked) =>
    attempt(async () => {
      const { before, setAt } = await api('POST /api/v1/defaults', input);
      onDone({
        text: setsAnything(input)
          ? 'Saved. The next dispatch starts with these, and the next open shows the watermark.'
          : 'The defaults are removed.',
        undo: () => api('POST /api/v1/defaults', { level, subject, ...before, seen: setAt }),
      });
    });
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <h2>{of === null ? 'Defaults of a level' : `What ${levelOf(of)} sets`}</h2>
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
      <Controller
        control={control}
        name="defaults"
        render={({ field, fieldState }) => (
          <DefaultsFields
            value={field.value}
            disabled={!mayChange}
            onChange={field.onChange}
            wrong={fieldState.error?.message}
          />
        )}
      />
      <Controller
        control={control}
        name="watermark"
        render={({ field, fieldState }) => (
          <WatermarkField
            label="Also on every page"
            value={field.value}
            onChange={field.onChange}
            most={3}
            disabled={!mayChange}
            hint="Beside the dispatch’s own watermark. A lower level can add to it, never remove it."
            problem={
              fieldState.error === undefined ? undefined : sentence(fieldState.error.message ?? '')
            }
          />
        )}
      />
      {mayChange && looked === null && (
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            Show who is affected
          </Button>
        </div>
      )}
      {looked !== null && (
        <ImpactWords
          impact={looked.impact}
          idle={looked.impact.idle}
          other="will have another watermark from their next open"
          untouched="Nobody with access will see a different watermark. Earlier dispatches keep their rights."
        />
      )}
      {looked !== null && mayChange && (
        <div className="row">
          <Button variant="contained" disabled={busy} onClick={() => void set(looked)}>
            Save defaults
          </Button>
          <Button
            variant="text"
            onClick={() => {
              setLooked(null);
            }}
          >
            Cancel
          </Button>
        </div>
      )}
    </form>
  );
}

/** Rights and days that new dispatches begin with, each left to the level above where it is not set. */
function DefaultsFields({
  value,
  disabled,
  onChange,
  wrong,
}: {
  readonly value: Defaults;
  readonly disabled: boolean;
  readonly onChange: (defaults: Defaults) => void;
  readonly wrong: string | undefined;
}) {
  const { rights, prints, days } = value;
  return (
    <>
      <div>
        <FormControlLabel
          control={
            <Checkbox
              checked={rights !== null}
              disabled={disabled}
              onChange={(_event, on) => {
                onChange({ ...value, rights: on ? ['read'] : null, prints: null });
              }}
            />
          }
          label="Set rights for new dispatches"
        />
        {rights !== null && (
          <RightsFields
            value={{ rights, prints }}
            disabled={disabled}
            onChange={(change) => {
              onChange({ ...value, ...change });
            }}
          />
        )}
      </div>
      <div className="row top">
        <TextField
          label="Days"
          type="number"
          disabled={disabled || days === 'no-end'}
          value={typeof days === 'number' ? days : ''}
          error={wrong !== undefined}
          helperText={wrong === undefined ? 'Empty: as the level above says' : sentence(wrong)}
          onChange={({ target }) => {
            onChange({
              ...value,
              days: target.value === '' ? null : Math.floor(Number(target.value)),
            });
          }}
          slotProps={{ htmlInput: { min: 1, max: 3650 } }}
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={days === 'no-end'}
              disabled={disabled}
              onChange={(_event, on) => {
                onChange({ ...value, days: on ? 'no-end' : null });
              }}
            />
          }
          label="No end"
        />
      </div>
    </>
  );
}
