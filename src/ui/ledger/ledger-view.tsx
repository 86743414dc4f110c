'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { LedgerInput, LedgerPage, LedgerRow } from '@/contracts/ledger';
import { OUTCOMES } from '@/core/ledger/entry';
import { Mark, markOf } from '@/ui/marks/mark';
import { Moment } from '@/ui/time/moment';
import { momentText, zoneName } from '@/ui/time/moment-words';
import { useZone } from '@/ui/time/use-zone';
import { actionWords, outcomeWords } from '@/ui/words/action-words';

/** The address of this view with some of its filters changed; filters live in the address alone. */
function addressOf(path: string, filter: LedgerInput, change: Partial<Record<keyof LedgerInput, string | number | undefined>>): string {
  const entries = Object.entries({ ...filter, before: undefined, ...change }).filter(([, value]) => value !== undefined).map(([key, value]): [string, string] => [key, String(value)]);
  const query = new URLSearchParams(entries).toString();
  return query === '' ? path : `${path}?${query}`;
}

/** Everything that happened, filtered by what stands in the address. */
export function LedgerView({ page, filter }: { readonly page: LedgerPage; readonly filter: LedgerInput }) {
  const [selected, setSelected] = useState<number | null>(page.rows.at(0)?.sequence ?? null);
  const row = page.rows.find((each) => each.sequence === selected);
  const chips = [
    { key: 'document' as const, label: page.names.document },
    { key: 'recipient' as const, label: page.names.recipient },
    { key: 'dispatch' as const, label: page.names.dispatch },
    { key: 'outcome' as const, label: filter.outcome === undefined ? null : outcomeWords[filter.outcome] },
  ].filter((chip) => chip.label !== null);
  const zone = useZone();
  const newest = page.rows.at(0)?.occurredAt ?? '2026-01-01T00:00:00Z';
  const year = newest.slice(0, 4);
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Ledger</h1>
            <span className="figure quiet">{page.size.toLocaleString('en-GB')} entries · {page.signedAt === null ? 'not signed yet' : `signed up to ${page.signedSize.toLocaleString('en-GB')}, ${momentText(page.signedAt, zone)}`}</span>
            <span className="gap" />
            <Button component="a" href={addressOf('/api/v1/ledger/export', filter, {})} download>Export {page.total.toLocaleString('en-GB')} rows</Button>
          </div>
          <div className="row" style={{ marginTop: 8 }}>
            {OUTCOMES.filter((outcome) => outcome !== filter.outcome).map((outcome) => <Link key={outcome} className="chip" href={addressOf('/ledger', filter, { outcome })}>only {outcomeWords[outcome]}</Link>)}
            {chips.map((chip) => <Link key={chip.key} className="chip" style={{ background: 'var(--shoal)' }} href={addressOf('/ledger', filter, { [chip.key]: undefined })} aria-label={`Remove the filter ${chip.label ?? ''}`}>{chip.label} ✕</Link>)}
            <span className="quiet" style={{ fontSize: 12.5 }}>times in {zone}, {year} ({zoneName(Date.parse(newest), zone)})</span>
          </div>
        </div>
        <div className="scroll">
          {page.rows.length === 0 ? (
            <div className="empty"><h2>No entry passes these filters</h2><p><Link href="/ledger">Show everything</Link></p></div>
          ) : (
            <>
              <table className="list">
                <thead><tr><th>When</th><th><span className="hidden-text">Outcome</span></th><th>Who</th><th>Did</th><th>What</th><th>Where</th><th>Detail</th></tr></thead>
                <tbody>
                  {page.rows.map((each) => (
                    <tr key={each.sequence} aria-selected={each.sequence === selected}>
                      <td><button type="button" className="row-button" style={{ fontWeight: 400 }} onClick={() => { setSelected(each.sequence); }}><Moment at={Date.parse(each.occurredAt)} brief={each.occurredAt.startsWith(year)} /></button></td>
                      <td><Mark kind={markOf(each.action, each.outcome)} /></td>
                      <td className="oneline">{each.who}</td>
                      <td style={{ whiteSpace: 'nowrap' }}>{actionWords[each.action]}</td>
                      <td className="oneline">{each.what}</td>
                      <td className="oneline quiet">{each.place === '' ? each.network : each.place.split(',')[0]}</td>
                      <td className={each.outcome === 'refused' || each.outcome === 'failed' ? 'magenta' : 'quiet'}>{each.detail}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {page.older !== null && <div style={{ padding: '12px 22px' }}><Button component={Link} href={addressOf('/ledger', filter, { before: page.older })}>Older entries</Button></div>}
            </>
          )}
        </div>
      </div>
      <aside className="side" aria-label="The selected entry">{row === undefined ? <p className="quiet">Select an entry to see it whole.</p> : <EntryPanel row={row} filter={filter} />}</aside>
    </main>
  );
}

function sentence(row: LedgerRow): string {
  const what = row.what === '' ? '' : `, ${row.what}`;
  if (row.outcome === 'refused') return `${row.who} was refused: ${row.detail}.`;
  return `${row.who} ${actionWords[row.action]}${what}.`;
}

function EntryPanel({ row, filter }: { readonly row: LedgerRow; readonly filter: LedgerInput }) {
  return (
    <div className="stack">
      <h2>Entry {row.sequence.toLocaleString('en-GB')}</h2>
      <p className="answer">{sentence(row)}</p>
      <p><Moment at={Date.parse(row.occurredAt)} named />{row.receivedAt !== row.occurredAt && <>, received <Moment at={Date.parse(row.receivedAt)} /></>}</p>
      {row.rule !== null && <p className="quiet">Decided by <span className="figure">{row.rule}</span></p>}
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
