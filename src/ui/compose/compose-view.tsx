'use client';

import { useState } from 'react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { ComposeStart } from '@/contracts/draft';
import type { DispatchResult } from '@/contracts/dispatch';
import type { DocumentRow } from '@/contracts/document';
import type { DocumentId } from '@/core/base/ids';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { call, sentenceOf } from '@/ui/http/call';
import { ComposeCheck, problemsOf } from '@/ui/compose/compose-check';
import { DraftLine } from '@/ui/compose/draft-line';
import { useDraft } from '@/ui/compose/use-draft';
import { RecipientsTable } from '@/ui/compose/recipients-table';
import { useRecipients } from '@/ui/compose/use-recipients';
import type { TermsDraft } from '@/ui/compose/switch-right';
import { TermsFields } from '@/ui/compose/terms-fields';

type Props = { readonly start: ComposeStart; readonly chosen: readonly DocumentId[] };

/** One page: documents, recipients, what they may do and until when, and at the side what that means. */
export function ComposeView({ start, chosen }: Props) {
  const { documents, now, mail } = start;
  const begun = start.draft?.body;
  const router = useRouter();
  const [picked, setPicked] = useState<ReadonlySet<DocumentId>>(new Set(begun?.documents ?? chosen));
  const recipients = useRecipients(begun);
  const [terms, setTerms] = useState<TermsDraft>(begun?.terms ?? { rights: ['read'], from: null, until: start.defaultUntil, prints: null });
  const [said, setSaid] = useState<string | null>(null);
  const [subject, setSubject] = useState(begun?.subject ?? '');
  const [note, setNote] = useState(begun?.note ?? '');
  const [watermark, setWatermark] = useState(begun?.watermark ?? DEFAULT_WATERMARK);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const draft = useDraft(start.draft?.id ?? null, { documents: [...picked], people: recipients.text, own: recipients.own, terms, subject, note, watermark });

  const selected = documents.filter((document) => picked.has(document.id));
  const { people, unreadable } = recipients;
  const problems = problemsOf({ documents: selected, people, unreadable, terms, subject, watermark, now, mail });
  const pick = (id: DocumentId, on: boolean) => { setPicked((before) => { const after = new Set(before); if (on) after.add(id); else after.delete(id); return after; }); };

  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id } = await call<DispatchResult>('POST', '/api/v1/dispatches', { documents: selected.map((document) => document.id), recipients: people.map(({ address, name, organisation, terms: own }) => ({ address, name, organisation, terms: own })), terms, subject, note, watermark });
      await draft.discard();
      router.push(`/dispatches/${id}`);
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };

  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{subject === '' ? 'Compose' : subject}</h1>
            <span className="gap" />
            {draft.state !== 'untouched' && <Button onClick={() => void draft.discard().then(() => { window.location.assign('/compose'); })}>Discard</Button>}
            <Button variant="contained" disabled={busy || problems.length > 0} onClick={() => void send()}>Encrypt and dispatch</Button>
          </div>
          <DraftLine state={draft.state} drafts={start.drafts} />
          {problem !== null && <p role="alert" className="notice stops" style={{ marginTop: 8 }}>{problem}</p>}
        </div>
        <div className="scroll" style={{ padding: '16px 22px 40px', display: 'grid', gap: 24, alignContent: 'start', maxWidth: 860 }}>
          <section className="stack">
            <h2>Documents</h2>
            <DocumentPicker documents={documents} picked={picked} onPick={pick} />
          </section>
          <TermsFields terms={terms} onChange={setTerms} said={said} onSaid={setSaid} />
          <section className="stack" style={{ gap: 16 }}>
            <h2>People</h2>
            <TextField label="Addresses" multiline minRows={2} value={recipients.text} maxRows={6} onChange={(event) => { recipients.setText(event.target.value); }} placeholder="Type or paste addresses, separated by anything usual" />
            {people.length > 0 && <RecipientsTable recipients={recipients} terms={terms} />}
          </section>
          <section className="stack" style={{ gap: 16 }}>
            <h2>On every page</h2>
            <TextField label="Watermark" value={watermark} onChange={(event) => { setWatermark(event.target.value); }} helperText="{name} {address} {organisation} {date} {time} {network} {reference} are filled in at each open" />
          </section>
          <section className="stack" style={{ gap: 16 }}>
            <h2>Message</h2>
            <TextField label="Subject" required value={subject} onChange={(event) => { setSubject(event.target.value); }} />
            <TextField label="Note" multiline minRows={3} value={note} onChange={(event) => { setNote(event.target.value); }} helperText="Stands in the mail, in the clear" />
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Consequences"><ComposeCheck documents={selected} people={people} terms={terms} watermark={watermark} problems={problems} now={now} /></aside>
    </main>
  );
}

function DocumentPicker({ documents, picked, onPick }: { readonly documents: readonly DocumentRow[]; readonly picked: ReadonlySet<DocumentId>; readonly onPick: (id: DocumentId, on: boolean) => void }) {
  const [search, setSearch] = useState('');
  const wanted = search.trim().toLowerCase();
  const shown = documents.filter((document) => picked.has(document.id) || `${document.title} ${document.reference}`.toLowerCase().includes(wanted));
  if (documents.length === 0) return <p className="quiet">No documents are protected yet. <Link href="/documents">Protect one first.</Link></p>;
  return (
    <div className="stack">
      {documents.length > 8 && <TextField label="Find" value={search} onChange={(event) => { setSearch(event.target.value); }} />}
      <div style={{ maxHeight: 190, overflow: 'auto', border: '1px solid var(--line)', padding: '4px 12px', background: 'var(--panel)' }}>
        {shown.map((document) => (
          <div key={document.id}>
            <FormControlLabel control={<Checkbox checked={picked.has(document.id)} onChange={(_event, on) => { onPick(document.id, on); }} />} label={<>{document.title} <span className="figure quiet">{document.reference}</span> <span className="quiet">{document.pages} p</span>{document.revoked && <span className="magenta"> revoked</span>}</>} />
          </div>
        ))}
      </div>
    </div>
  );
}
