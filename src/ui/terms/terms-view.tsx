'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { CeilingRow } from '@/contracts/ceiling';
import type { KeptTermsRow, TermsPage } from '@/contracts/kept-terms';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/powers';
import { CeilingForm, type CeilingDone } from '@/ui/terms/ceiling-form';
import { CeilingsPart } from '@/ui/terms/ceilings-part';
import { MarkingsPart } from '@/ui/terms/markings-part';
import { OdrlPart } from '@/ui/terms/odrl-part';
import { KeptTermsForm } from '@/ui/terms/kept-terms-form';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/ui/words/rights-words';

/** Kept terms, ceilings and markings: what dispatches are made from, and within. */
export function TermsView({ page }: { readonly page: TermsPage }) {
  const mayChange = useHolds('settings');
  const [open, setOpen] = useState<KeptTermsRow | 'new' | null>(null);
  const [ceiling, setCeiling] = useState<CeilingRow | 'new' | null>(null);
  const [done, setDone] = useState<CeilingDone | null>(null);
  const { said, attempt, busy } = useAttempt();
  const openTerms = (row: KeptTermsRow | 'new') => { setOpen(row); setCeiling(null); };
  const openCeiling = (row: CeilingRow | 'new') => { setCeiling(row); setOpen(null); setDone(null); };
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row"><h1>Terms</h1><span className="quiet">kept under a name, to be chosen when something is sent</span><span className="gap" />{mayChange && <Button onClick={() => { openTerms('new'); }}>Keep new terms</Button>}</div>
          <Notice said={said} />
          {done !== null && <p role="status" className="notice" style={{ marginTop: 8 }}>{done.text} <Button variant="text" disabled={busy} onClick={() => { setDone(null); void attempt(done.undo, 'It is as it was.'); }}>Undo</Button></p>}
        </div>
        <div className="scroll">
          {page.terms.length === 0 ? <div className="empty"><h2>No terms are kept yet</h2><p>Keep those you use again and again: what people may do, for how long, and what stands on every page.</p></div> : (
            <table className="list">
              <thead><tr><th>Name</th><th>They may</th><th>For</th><th className="number">In use</th><th>Watermark</th><th>Changed</th></tr></thead>
              <tbody>
                {page.terms.map((row) => (
                  <tr key={row.id} aria-selected={open !== 'new' && open?.id === row.id}>
                    <td><button type="button" className="row-button" onClick={() => { openTerms(row); }}>{row.name}</button></td>
                    <td>{rightsLine(row.rights, row.prints)}</td>
                    <td>{row.days === null ? <span className="lamp">no end</span> : `${String(row.days)} ${row.days === 1 ? 'day' : 'days'}`}</td>
                    <td className="number" title="People who were given access with them and would follow a change">{row.uses}</td>
                    <td className="oneline quiet" title={row.watermark}>{row.watermark === '' ? 'none' : row.watermark}</td>
                    <td><Moment at={row.changedAt} /> <span className="quiet">by {row.changedBy}</span></td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <CeilingsPart ceilings={page.ceilings} mayChange={mayChange} selected={ceiling === 'new' ? null : ceiling} onOpen={openCeiling} />
          <OdrlPart mayChange={mayChange} attempt={attempt} busy={busy} />
          <MarkingsPart markings={page.markings} mayChange={mayChange} attempt={attempt} />
        </div>
      </div>
      <aside className="side" aria-label="The selected terms">
        {ceiling !== null && <CeilingForm key={ceiling === 'new' ? 'new' : `${ceiling.level} ${ceiling.subject}`} of={ceiling === 'new' ? null : ceiling} page={page} mayChange={mayChange} attempt={attempt} busy={busy} onDone={(made) => { setDone(made); setCeiling(null); }} />}
        {ceiling === null && (open === null ? <p className="quiet">Select terms or a ceiling to see them whole.{mayChange ? '' : ' An administrator changes them.'}</p> : (
          <KeptTermsForm
            key={open === 'new' ? 'new' : open.id} row={open === 'new' ? null : open} mayChange={mayChange}
            attempt={attempt} busy={busy}
            onSave={async (fields, followed) => { 
              const was = open === 'new' ? null : open;
              if (!(await attempt(() => call('POST', '/api/v1/terms', fields), fields.reachBack ? undefined : `“${fields.name}” is kept. ${followed}`))) return;
              setOpen(null);
              if (fields.reachBack && was !== null) setDone({ text: `“${fields.name}” is kept. ${followed}`, undo: () => call('POST', '/api/v1/terms', { id: was.id, name: was.name, rights: was.rights, prints: was.prints, days: was.days, watermark: was.watermark, reachBack: true }) });
            }}
            onRemove={async (row) => { if (await attempt(() => call('DELETE', `/api/v1/terms/${row.id}`), `“${row.name}” is no longer offered. What was sent with it stays.`)) setOpen(null); }}
          />
        ))}
      </aside>
    </main>
  );
}
