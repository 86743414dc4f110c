'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { KeptTermsRow } from '@/contracts/kept-terms';
import type { TermsId } from '@/core/base/ids';
import type { KeptTerms } from '@/core/policy/kept-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { RightsFields } from '@/ui/compose/rights-fields';

export type TermsFormFields = KeptTerms & { readonly id: TermsId | null; readonly name: string };

const DAYS_AT_FIRST = 30;

/** One set of kept terms, to look at or to change. */
export function KeptTermsForm({ row, mayChange, onSave, onRemove }: { readonly row: KeptTermsRow | null; readonly mayChange: boolean; readonly onSave: (fields: TermsFormFields) => Promise<void>; readonly onRemove: (row: KeptTermsRow) => Promise<void> }) {
  const [name, setName] = useState(row?.name ?? '');
  const [rights, setRights] = useState({ rights: row?.rights ?? (['read'] as const), prints: row?.prints ?? null });
  const [days, setDays] = useState(row === null ? String(DAYS_AT_FIRST) : row.days === null ? '' : String(row.days));
  const [watermark, setWatermark] = useState(row?.watermark ?? DEFAULT_WATERMARK);
  return (
    <form className="stack" style={{ gap: 16 }} onSubmit={(event) => { event.preventDefault(); void onSave({ id: row?.id ?? null, name, ...rights, days: days === '' ? null : Math.floor(Number(days)), watermark }); }}>
      <h2>{row === null ? 'New terms' : 'Terms'}</h2>
      <TextField label="Name" required value={name} disabled={!mayChange} onChange={(event) => { setName(event.target.value); }} />
      <RightsFields value={rights} disabled={!mayChange} onChange={setRights} />
      <TextField label="Days from the dispatch on" type="number" value={days} disabled={!mayChange} onChange={(event) => { setDays(event.target.value); }} helperText={days === '' ? 'Empty: no end' : ''} slotProps={{ htmlInput: { min: 1, max: 3650 } }} />
      <TextField label="Watermark" multiline value={watermark} disabled={!mayChange} onChange={(event) => { setWatermark(event.target.value); }} />
      {mayChange && <div className="row"><Button type="submit" variant="contained">Keep</Button>{row !== null && <Button color="error" onClick={() => void onRemove(row)}>Offer no longer</Button>}</div>}
    </form>
  );
}
