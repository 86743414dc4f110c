'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { DocumentDetail } from '@/contracts/document-detail';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/powers';
import { CeilingForm } from '@/ui/terms/ceiling-form';
import type { RuleDone } from '@/ui/terms/rule-done';
import { Moment } from '@/ui/time/moment';
import { levelWords, limitLines } from '@/ui/words/limit-words';

/** The ceilings that reach a document, and its own, which is set here. */
export function OverPanel({ detail }: { readonly detail: DocumentDetail }) {
  const mayChange = useHolds('settings');
  const { busy, said, attempt } = useAttempt();
  const [open, setOpen] = useState(false);
  const [done, setDone] = useState<RuleDone | null>(null);
  const own = detail.ceilings.some(({ level }) => level === 'document');
  return (
    <section className="stack" aria-label="Ceilings over it">
      <h2>Ceilings over it</h2>
      {detail.ceilings.length === 0 && <p className="quiet">None: whoever sends it may give what they like.</p>}
      {detail.ceilings.map((row) => <p key={`${row.level} ${row.subject}`}>{row.level === 'organisation' ? 'The organisation' : row.level === 'document' ? 'Its own' : `The ${levelWords[row.level]} ${row.name}`}: {limitLines(row.limits).join('; ')} <span className="quiet">by {row.setBy} <Moment at={row.setAt} /></span></p>)}
      {done !== null && <p role="status" className="notice">{done.text} <Button variant="text" disabled={busy} onClick={() => { setDone(null); void attempt(done.undo, 'It is as it was.'); }}>Undo</Button></p>}
      {mayChange && !open && <div className="row"><Button onClick={() => { setOpen(true); setDone(null); }}>{own ? 'Change its own…' : 'Set one of its own…'}</Button></div>}
      {open && <CeilingForm of={{ level: 'document', subject: detail.id, name: detail.title }} page={{ ceilings: detail.ceilings, markings: [], folders: [] }} mayChange attempt={attempt} busy={busy} onDone={(made) => { setDone(made); setOpen(false); }} />}
      {open && <div className="row"><Button variant="text" onClick={() => { setOpen(false); }}>Close</Button></div>}
      <Notice said={said} />
    </section>
  );
}
