'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { WatermarkField } from '@/ui/watermark/watermark-field';
import { Controller } from 'react-hook-form';
import type { ImpactFound } from '@/contracts/impact';
import { putTermsInput, type PutTermsInput, type SavedTermsRow } from '@/contracts/saved-terms';
import { counted } from '@/core/base/counted';
import { conditionLines } from '@/core/policy/condition-lines';
import { CAUTIOUS_TERMS } from '@/core/policy/saved-terms';
import { FormNumber, FormText, sentence } from '@/ui/forms/form-fields';
import { FormRights } from '@/ui/forms/form-rights';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';
import type { RuleDone } from '@/ui/levels/rule-done';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { audience } from '@/ui/words/addressee-words';

type Looked = { readonly input: PutTermsInput; readonly impact: ImpactFound };
type Props = {
  readonly row: SavedTermsRow | null;
  readonly mayChange: boolean;
  readonly attempt: Attempt['attempt'];
  /** It is saved or removed; with an undo where earlier dispatches changed too. */
  readonly onDone: (done: RuleDone | null) => void;
};

function startOf(row: SavedTermsRow | null) {
  const terms = row ?? CAUTIOUS_TERMS;
  return {
    id: row?.id ?? null,
    name: row?.name ?? '',
    rights: terms.rights,
    prints: terms.prints,
    days: terms.days,
    watermark: terms.watermark,
    conditions: terms.conditions,
    ...(row === null ? {} : { seen: row.version }),
  };
}

/**
 * One set of saved terms, to look at or to change; where people have access given with them, what
 * follows is chosen knowingly.
 */
export function SavedTermsForm({ row, mayChange, attempt, onDone }: Props) {
  const [looked, setLooked] = useState<Looked | null>(null);
  const keep = async (input: PutTermsInput, impact: ImpactFound | null) => {
    const reachBack = impact !== null;
    const text =
      `“${input.name}” is saved. ` +
      (reachBack
        ? `Earlier dispatches changed too, for ${audience(impact.people, impact.unknown)}.`
        : 'Earlier dispatches stay as they were.');
    const well = await attempt(
      () => api('POST /api/v1/terms', { ...input, reachBack }),
      reachBack ? undefined : text,
    );
    if (!well) return;
    const before = startOf(row);
    onDone(
      reachBack
        ? {
            text,
            undo: () => api('POST /api/v1/terms', { ...before, seen: undefined, reachBack: true }),
          }
        : null,
    );
  };
  const { form, busy, onSubmit } = useContractForm({
    schema: putTermsInput,
    start: startOf(row),
    send: async (input) => {
      if (row === null || row.uses === 0) {
        await keep(input, null);
        return;
      }
      const { rights, prints, days, conditions } = input;
      const impact = await api('POST /api/v1/terms/preview', {
        id: row.id,
        rights,
        prints,
        days,
        conditions,
      });
      setLooked({ input, impact });
    },
    attempt,
    onEdit: () => {
      setLooked(null);
    },
  });
  const { control } = form;
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <h2>{row === null ? 'New terms' : 'Terms'}</h2>
      {row !== null && (
        <p className="quiet">
          Version {row.version}.{' '}
          {row.uses === 0
            ? 'Nobody has access with them.'
            : `${counted(row.uses, 'person was', 'people were')} given access with them.`}
        </p>
      )}
      <FormText control={control} name="name" label="Name" required disabled={!mayChange} />
      <FormRights form={form} rights="rights" prints="prints" disabled={!mayChange} />
      <FormNumber
        control={control}
        name="days"
        label="Days from the dispatch on"
        max={3650}
        hint="Empty: no end"
        disabled={!mayChange}
      />
      {mayChange ? (
        <Controller
          control={control}
          name="conditions"
          render={({ field }) => <ConditionsFields value={field.value} onChange={field.onChange} />}
        />
      ) : (
        conditionLines(row?.conditions, 'their zone').map((line) => (
          <p key={line} className="quiet">
            Opens {line.replace(/^opens /, '')}.
          </p>
        ))
      )}
      <Controller
        control={control}
        name="watermark"
        render={({ field, fieldState }) => (
          <WatermarkField
            label="Watermark"
            value={field.value}
            onChange={field.onChange}
            disabled={!mayChange}
            hint="Earlier dispatches keep their watermark."
            problem={
              fieldState.error === undefined ? undefined : sentence(fieldState.error.message ?? '')
            }
          />
        )}
      />
      {looked !== null && (
        <WhatFollows
          looked={looked}
          busy={busy}
          onKeep={(impact) => void keep(looked.input, impact)}
          onCancel={() => {
            setLooked(null);
          }}
        />
      )}
      {mayChange && looked === null && (
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            {row !== null && row.uses > 0 ? 'Save terms…' : 'Save terms'}
          </Button>
          {row !== null && <RemoveTerms row={row} attempt={attempt} onDone={onDone} />}
        </div>
      )}
    </form>
  );
}

/** Whether earlier dispatches follow the terms that are saved. */
function WhatFollows({
  looked: { impact },
  busy,
  onKeep,
  onCancel,
}: {
  readonly looked: Looked;
  readonly busy: boolean;
  readonly onKeep: (impact: ImpactFound | null) => void;
  readonly onCancel: () => void;
}) {
  return (
    <>
      <p>If earlier dispatches follow these terms:</p>
      <ImpactWords impact={impact} />
      <div className="row">
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => {
            onKeep(null);
          }}
        >
          Save for new dispatches only
        </Button>
        <Button
          disabled={busy || impact.pairs === 0}
          onClick={() => {
            onKeep(impact);
          }}
        >
          Save and change earlier dispatches
        </Button>
        <Button variant="text" onClick={onCancel}>
          Cancel
        </Button>
      </div>
    </>
  );
}

function RemoveTerms({
  row,
  attempt,
  onDone,
}: Pick<Props, 'attempt' | 'onDone'> & { readonly row: SavedTermsRow }) {
  const remove = async () => {
    const well = await attempt(
      () => api('DELETE /api/v1/terms/:id', { id: row.id }),
      `“${row.name}” is removed. Earlier dispatches stay as they were.`,
    );
    if (well) onDone(null);
  };
  return (
    <Button color="error" onClick={() => void remove()}>
      Remove terms
    </Button>
  );
}
