'use client';

import Link from 'next/link';
import type { LedgerInput, LedgerRow } from '@/contracts/ledger';
import { addressOf } from '@/ui/ledger/ledger-address';
import { Moment } from '@/ui/time/moment';
import { AskWhy } from '@/ui/why/ask-why';
import { actionWords } from '@/ui/words/action-words';

function sentence(row: LedgerRow): string {
  const what = row.what === '' ? '' : `, ${row.what}`;
  if (row.outcome === 'refused') return `${row.who} was refused: ${row.detail}.`;
  return `${row.who} ${actionWords[row.action]}${what}.`;
}

/** One entry explained: who did what, why it was answered so, from where, and what proves it. */
export function EntryPanel({ row, filter }: { readonly row: LedgerRow; readonly filter: LedgerInput }) {
  return (
    <div className="stack">
      <h2>Entry {row.sequence.toLocaleString('en-GB')}</h2>
      <p className="answer">{sentence(row)}</p>
      <p><Moment at={Date.parse(row.occurredAt)} named />{row.receivedAt !== row.occurredAt && <>, received <Moment at={Date.parse(row.receivedAt)} /></>}</p>
      {row.rule !== null && <p className="quiet">Decided by <span className="figure">{row.rule}</span></p>}
      {row.document !== null && row.recipient !== null && <AskWhy key={row.sequence} recipient={row.recipient} document={row.document} label="Why, as it stands now?" />}
      <hr />
      <h2>From</h2>
      <p className="figure">{row.network === '' ? 'not recorded' : row.network}{row.place !== '' && <><br />{row.place}</>}</p>
      <hr />
      <h2>Narrow to</h2>
      <div className="row">
        {row.document !== null && <Link className="chip" href={addressOf('/ledger', filter, { document: row.document })}>this document</Link>}
        {row.recipient !== null && <Link className="chip" href={addressOf('/ledger', filter, { recipient: row.recipient })}>this person</Link>}
        {row.dispatch !== null && <Link className="chip" href={addressOf('/ledger', filter, { dispatch: row.dispatch })}>this dispatch</Link>}
        {row.document === null && row.recipient === null && row.dispatch === null && <span className="quiet">Nothing: it names no document and no person.</span>}
      </div>
      <hr />
      <h2>Proof</h2>
      <p className="figure" style={{ wordBreak: 'break-all' }}>sha-256 {row.hash}<br /><span className="quiet">follows {row.sequence === 1 ? 'nothing' : `${row.previous.slice(0, 16)}…`}</span></p>
    </div>
  );
}
