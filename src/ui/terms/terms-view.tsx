'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { KeptTermsRow, TermsPage } from '@/contracts/kept-terms';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/powers';
import { MarkingsPart } from '@/ui/terms/markings-part';
import { OdrlPart } from '@/ui/terms/odrl-part';
import { KeptTermsForm } from '@/ui/terms/kept-terms-form';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/ui/words/rights-words';

/** Kept terms and markings: what dispatches are made from. */
export function TermsView({ page }: { readonly page: TermsPage }) {
  const mayChange = useHolds('settings');
  const [open, setOpen] = useState<KeptTermsRow | 'new' | null>(null);
  const { said, attempt, busy } = useAttempt();
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row"><h1>Terms</h1><span className="quiet">kept under a name, to be chosen when something is sent</span><span className="gap" />{mayChange && <Button onClick={() => { setOpen('new'); }}>Keep new terms</Button>}</div>
          <Notice said={said} />
        </div>
        <div className="scroll">
          {page.terms.length === 0 ? <div className="empty"><h2>No terms are kept yet</h2><p>Keep those you use again and again: what people may do, for how long, and what stands on every page.</p></div> : (
            <table className="list">
              <thead><tr><th>Name</th><th>They may</th><th>For</th><th>Watermark</th><th>Changed</th></tr></thead>
              <tbody>
                {page.terms.map((row) => (
                  <tr key={row.id} aria-selected={open !== 'new' && open?.id === row.id}>
                    <td><button type="button" className="row-button" onClick={() => { setOpen(row); }}>{row.name}</button></td>
                    <td>{rightsLine(row.rights, row.prints)}</td>
                    <td>{row.days === null ? <span className="lamp">no end</span> : `${String(row.days)} ${row.days === 1 ? 'day' : 'days'}`}</td>
                    <td className="oneline quiet" title={row.watermark}>{row.watermark === '' ? 'none' : row.watermark}</td>
                    <td><Moment at={row.changedAt} /> <span className="quiet">by {row.changedBy}</span></td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <OdrlPart mayChange={mayChange} attempt={attempt} busy={busy} />
          <MarkingsPart markings={page.markings} mayChange={mayChange} attempt={attempt} />
        </div>
      </div>
      <aside className="side" aria-label="The selected terms">
        {open === null ? <p className="quiet">Select terms to see them whole.{mayChange ? '' : ' An administrator changes them.'}</p> : (
          <KeptTermsForm
            key={open === 'new' ? 'new' : open.id} row={open === 'new' ? null : open} mayChange={mayChange}
            onSave={async (fields) => { if (await attempt(() => call('POST', '/api/v1/terms', fields), `“${fields.name}” is kept. What was sent before stays as it was sent.`)) setOpen(null); }}
            onRemove={async (row) => { if (await attempt(() => call('DELETE', `/api/v1/terms/${row.id}`), `“${row.name}” is no longer offered. What was sent with it stays.`)) setOpen(null); }}
          />
        )}
      </aside>
    </main>
  );
}
