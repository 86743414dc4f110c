'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DispatchDetail } from '@/contracts/dispatch';
import { DAY, HOUR } from '@/core/base/time';
import { RecipientsTable } from '@/ui/compose/recipients-table';
import type { TermsDraft } from '@/ui/compose/switch-right';
import { TermsFields } from '@/ui/compose/terms-fields';
import { useRecipients } from '@/ui/compose/use-recipients';
import { call, sentenceOf } from '@/ui/http/call';

const DAYS_AT_FIRST = 30;

/** Adds people to a sending, on terms that begin as those of its first grant. */
export function AddPeople({ detail, now, onDone }: { readonly detail: DispatchDetail; readonly now: number; readonly onDone: () => void }) {
  const router = useRouter();
  const recipients = useRecipients(undefined);
  const [first] = detail.grants;
  const until = first?.until != null && first.until > now ? first.until : Math.ceil((now + DAYS_AT_FIRST * DAY) / HOUR) * HOUR;
  const [terms, setTerms] = useState<TermsDraft>({ rights: first?.rights ?? ['read'], prints: first?.prints ?? null, from: null, until });
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { people, domains, unreadable } = recipients;
  const added = people.length + domains.length;
  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await call('POST', `/api/v1/dispatches/${detail.id}/people`, { recipients: people.map(({ address, name, organisation, terms: own }) => ({ address, name, organisation, terms: own })), domains: domains.map(({ domain }) => domain), terms });
      router.refresh();
      onDone();
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return (
    <section className="stack" aria-label="Add people" style={{ gap: 14, marginTop: 8, paddingTop: 8, maxHeight: '58vh', overflow: 'auto' }}>
      <TextField label="Addresses" multiline minRows={2} maxRows={5} autoFocus value={recipients.text} onChange={(event) => { recipients.setText(event.target.value); }} placeholder="Type or paste addresses, separated by anything usual" />
      {added > 0 && <RecipientsTable recipients={recipients} terms={terms} />}
      <TermsFields terms={terms} onChange={setTerms} said={said} onSaid={setSaid} />
      {unreadable.length > 0 && <p className="magenta">Not an address: {unreadable.slice(0, 5).join(', ')}{unreadable.length > 5 && ` and ${String(unreadable.length - 5)} more`}</p>}
      {problem !== null && <p role="alert" className="notice stops">{problem}</p>}
      <div className="row"><Button variant="contained" disabled={busy || added === 0 || unreadable.length > 0} onClick={() => void send()}>{added < 2 ? 'Add to this sending' : `Add ${String(added)} to this sending`}</Button><Button onClick={onDone}>Leave it</Button><span className="quiet">{detail.delivery === 'mail' ? 'They are mailed the message with their link. ' : 'Their links stand at the side. '}Everybody else is left as they are.</span></div>
    </section>
  );
}
