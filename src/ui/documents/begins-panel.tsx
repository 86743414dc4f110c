'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { DocumentDetail } from '@/contracts/document-detail';
import { resolveDefaults, watermarkUnder } from '@/core/policy/defaults';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/powers';
import { DefaultsForm } from '@/ui/terms/defaults-form';
import type { RuleDone } from '@/ui/terms/rule-done';
import { originWords } from '@/ui/words/origin-words';

/** What a sending of a document begins with and what stands on its pages, each with who set it; and its own, which is set here. */
export function BeginsPanel({ detail }: { readonly detail: DocumentDetail }) {
  const mayChange = useHolds('settings');
  const { busy, said, attempt } = useAttempt();
  const [open, setOpen] = useState(false);
  const [done, setDone] = useState<RuleDone | null>(null);
  const marks = watermarkUnder('', detail.defaults);
  return (
    <section className="stack" aria-label="Defaults">
      <h2>A sending of it begins with</h2>
      {originWords(resolveDefaults(detail.defaults)).map((line) => <p key={line}>{line}</p>)}
      {marks !== '' && <p>On every page besides: <span className="figure">{marks}</span></p>}
      {done !== null && <p role="status" className="notice">{done.text} <Button variant="text" disabled={busy} onClick={() => { setDone(null); void attempt(done.undo, 'It is as it was.'); }}>Undo</Button></p>}
      {mayChange && !open && <div className="row"><Button onClick={() => { setOpen(true); setDone(null); }}>Set its own defaults…</Button></div>}
      {open && <DefaultsForm of={{ level: 'document', subject: detail.id, name: detail.title }} page={{ defaults: detail.defaults, markings: [], folders: [] }} mayChange attempt={attempt} busy={busy} onDone={(made) => { setDone(made); setOpen(false); }} />}
      {open && <div className="row"><Button variant="text" onClick={() => { setOpen(false); }}>Close</Button></div>}
      <Notice said={said} />
    </section>
  );
}
