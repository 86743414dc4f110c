'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { OpensInput } from '@/contracts/opens';
import { opensAddress } from '@/ui/opens/opens-address';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { OUTCOMES } from '@/core/ledger/entry';
import { EntryPanel } from '@/ui/ledger/entry-panel';
import { Facets } from '@/ui/ledger/facets';
import { Histogram } from '@/ui/ledger/histogram';
import { KeptViews } from '@/ui/ledger/kept-views';
import { addressOf } from '@/ui/ledger/ledger-address';
import { VerifyPanel } from '@/ui/ledger/verify-panel';
import { WorldPicture } from '@/ui/ledger/world-picture';
import { Mark, markOf } from '@/ui/marks/mark';
import { Moment } from '@/ui/time/moment';
import { dayText, momentText, zoneName } from '@/ui/time/moment-words';
import { useZone } from '@/ui/time/use-zone';
import { actionWords, kindWords } from '@/ui/words/action-words';

type Chip = { readonly keys: readonly (keyof LedgerInput)[]; readonly label: string };

/** The filters in force, each of which can be taken off. */
function chipsOf(filter: LedgerInput, names: LedgerPage['names']): Chip[] {
  const { from, to } = filter;
  const span = from === undefined && to === undefined ? null : from === to ? dayText(from ?? '') : `${from === undefined ? 'the first' : dayText(from)} – ${to === undefined ? 'the last' : dayText(to)}`;
  const given: readonly (readonly [readonly (keyof LedgerInput)[], string | null | undefined])[] = [
    [['from', 'to'], span], [['kind'], filter.kind === undefined ? null : kindWords[filter.kind]], [['outcome'], filter.outcome === undefined ? null : `only ${filter.outcome}`], [['reason'], filter.reason?.replaceAll('-', ' ')], [['document'], names.document], [['recipient'], names.recipient],
    [['dispatch'], names.dispatch], [['organisation'], filter.organisation], [['place'], filter.place],
  ];
  return given.flatMap(([keys, label]) => (label == null ? [] : [{ keys, label }]));
}

/** What of these filters the opens can be narrowed by as well. */
function opensFilterOf({ document, dispatch, recipient, organisation, from, to }: LedgerInput): OpensInput {
  return { document, dispatch, recipient, organisation, from, to };
}

/** Everything that happened, filtered by what stands in the address. */
export function LedgerView({ page, filter }: { readonly page: LedgerPage; readonly filter: LedgerInput }) {
  const [selected, setSelected] = useState<number | null>(page.rows.at(0)?.sequence ?? null);
  const [verifying, setVerifying] = useState(false);
  const row = page.rows.find((each) => each.sequence === selected);
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
            <Button aria-expanded={verifying} onClick={() => { setVerifying(!verifying); }}>Verify</Button>
            <Button component={Link} href={opensAddress('/ledger/opens', opensFilterOf(filter))}>Opens by person</Button>
            <Button component="a" href={addressOf('/api/v1/ledger/export', filter, {})} download>Export {page.total.toLocaleString('en-GB')} rows</Button>
          </div>
          <div className="row" style={{ marginTop: 8 }}>
            {chipsOf(filter, page.names).map(({ keys, label }) => <Link key={keys[0]} className="chip" style={{ background: 'var(--shoal)' }} href={addressOf('/ledger', filter, Object.fromEntries(keys.map((key) => [key, undefined])))} aria-label={`Remove the filter ${label}`}>{label} ✕</Link>)}
            {filter.outcome === undefined && OUTCOMES.map((outcome) => <Link key={outcome} className="chip" href={addressOf('/ledger', filter, { outcome })}>only {outcome}</Link>)}
            <span className="quiet" style={{ fontSize: 12.5 }}>times in {zone}, {year} ({zoneName(Date.parse(newest), zone)}){page.zone === zone ? '' : `; days in ${page.zone}`}</span>
          </div>
          <KeptViews views={page.views} filter={filter} />
        </div>
        <div className="scroll">
          {page.recorded !== null && <div className="over-time"><Histogram days={page.days} first={page.recorded.first} last={page.recorded.last} filter={filter} /><WorldPicture map={page.map} filter={filter} /></div>}
          <Facets facets={page.facets} filter={filter} />
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
      <aside className="side" aria-label="The selected entry">{verifying && <><VerifyPanel size={page.size} /><hr /></>}{row === undefined ? <p className="quiet">Select an entry to see it whole.</p> : <EntryPanel row={row} filter={filter} />}</aside>
    </main>
  );
}
