'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { ImpactFound } from '@/contracts/impact';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { TermsId } from '@/core/base/ids';
import type { SavedTerms } from '@/core/policy/saved-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { conditionLines } from '@/core/policy/condition-lines';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { RightsFields } from '@/ui/terms-fields/rights-fields';
import { audience } from '@/ui/words/addressee-words';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';

type TermsFormFields = SavedTerms & { readonly id: TermsId | null; readonly name: string };
/** The fields to keep, the version that was seen, and whether what was sent with the terms follows. */
type TermsToKeep = TermsFormFields & { readonly seen?: number; readonly reachBack: boolean };
type Props = {
  readonly row: SavedTermsRow | null;
  readonly mayChange: boolean;
  readonly onSave: (terms: TermsToKeep, followed: string) => Promise<void>;
  readonly onRemove: (row: SavedTermsRow) => Promise<void>;
} & Pick<Attempt, 'attempt' | 'busy'>;

const DAYS_AT_FIRST = 30;
const people = (n: number): string => `${String(n)} ${n === 1 ? 'person was' : 'people were'}`;

/**
 * One set of saved terms, to look at or to change; where people have access given with them, what
 * follows is chosen knowingly.
 */
export function SavedTermsForm({ row, mayChange, onSave, onRemove, attempt, busy }: Props) {
  const [name, setName] = useState(row?.name ?? '');
  const [rights, setRights] = useState({
    rights: row?.rights ?? (['read'] as const),
    prints: row?.prints ?? null,
  });
  const [days, setDays] = useState(
    row === null ? String(DAYS_AT_FIRST) : row.days === null ? '' : String(row.days),
  );
  const [conditions, setConditions] = useState(row?.conditions);
  const [watermark, setWatermark] = useState(row?.watermark ?? DEFAULT_WATERMARK);
  const [impact, setImpact] = useState<ImpactFound | null>(null);
  const change =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      setImpact(null);
    };
  const fields: TermsFormFields = {
    id: row?.id ?? null,
    name,
    ...rights,
    days: days === '' ? null : Math.floor(Number(days)),
    watermark,
    conditions,
  };
  const keep = (reachBack: boolean) =>
    onSave(
      { ...fields, reachBack, ...(row === null ? {} : { seen: row.version }) },
      reachBack
        ? `Earlier dispatches changed too, for ${audience(impact?.people ?? 0, impact?.unknown ?? false)}.`
        : 'Earlier dispatches stay as they were.',
    );
  const submit = async () => {
    if (row === null || row.uses === 0) return keep(false);
    await attempt(async () => {
      setImpact(
        await call<ImpactFound>('POST', '/api/v1/terms/preview', {
          id: row.id,
          rights: fields.rights,
          prints: fields.prints,
          days: fields.days,
          conditions,
        }),
      );
    });
  };
  return (
    <form
      className="stack loose"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h2>{row === null ? 'New terms' : 'Terms'}</h2>
      {row !== null && (
        <p className="quiet">
          Version {row.version}.{' '}
          {row.uses === 0
            ? 'Nobody has access with them.'
            : `${people(row.uses)} given access with them.`}
        </p>
      )}
      <TextField
        label="Name"
        required
        value={name}
        disabled={!mayChange}
        onChange={(event) => {
          setName(event.target.value);
        }}
      />
      <RightsFields value={rights} disabled={!mayChange} onChange={change(setRights)} />
      <TextField
        label="Days from the dispatch on"
        type="number"
        value={days}
        disabled={!mayChange}
        onChange={(event) => {
          change(setDays)(event.target.value);
        }}
        helperText={days === '' ? 'Empty: no end' : ''}
        slotProps={{ htmlInput: { min: 1, max: 3650 } }}
      />
      {mayChange ? (
        <ConditionsFields value={conditions} onChange={change(setConditions)} />
      ) : (
        conditionLines(conditions, 'their zone').map((line) => (
          <p key={line} className="quiet">
            Opens {line.replace(/^opens /, '')}.
          </p>
        ))
      )}
      <TextField
        label="Watermark"
        multiline
        value={watermark}
        disabled={!mayChange}
        onChange={(event) => {
          setWatermark(event.target.value);
        }}
        helperText="Earlier dispatches keep their watermark"
      />
      {impact !== null && (
        <>
          <p>If earlier dispatches follow these terms:</p>
          <ImpactWords impact={impact} />
          <div className="row">
            <Button variant="contained" disabled={busy} onClick={() => void keep(false)}>
              Save for new dispatches only
            </Button>
            <Button disabled={busy || impact.pairs === 0} onClick={() => void keep(true)}>
              Save and change earlier dispatches
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
        </>
      )}
      {mayChange && impact === null && (
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            {row !== null && row.uses > 0 ? 'Save terms…' : 'Save terms'}
          </Button>
          {row !== null && (
            <Button color="error" onClick={() => void onRemove(row)}>
              Remove terms
            </Button>
          )}
        </div>
      )}
    </form>
  );
}
