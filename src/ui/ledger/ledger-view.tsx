'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { OpensInput } from '@/contracts/opens';
import { opensAddress } from '@/ui/words/opens-address';
import type { LedgerInput, LedgerPage, LedgerRow, Named } from '@/contracts/ledger';
import { EntryPanel } from '@/ui/ledger/entry-panel';
import { EntryRows } from '@/ui/ledger/entry-rows';
import { Facets } from '@/ui/ledger/facets';
import { FilterChips } from '@/ui/ledger/filter-chips';
import { FindFilter } from '@/ui/ledger/find-filter';
import { Histogram } from '@/ui/ledger/histogram';
import { SavedViews } from '@/ui/ledger/saved-views';
import { addressOf } from '@/ui/ledger/ledger-address';
import { useWords } from '@/ui/ledger/use-words';
import { VerifyPanel } from '@/ui/ledger/verify-panel';
import { WorldPicture } from '@/ui/ledger/world-picture';
import { momentText, zoneName } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';

const only = (values: readonly string[] | undefined): string | undefined =>
  values?.length === 1 ? values[0] : undefined;

/** What of these filters the opens can be narrowed by as well: by one of each. */
function opensFilterOf({
  document,
  dispatch,
  recipient,
  organisation,
  from,
  to,
}: LedgerInput): OpensInput {
  return {
    document: only(document),
    dispatch: only(dispatch),
    recipient: only(recipient),
    organisation: only(organisation),
    from: from?.slice(0, 10),
    to: to?.slice(0, 10),
  };
}

/** Everything that happened, filtered by what stands in the address. */
export function LedgerView({
  page,
  filter,
}: {
  readonly page: LedgerPage;
  readonly filter: LedgerInput;
}) {
  const [first] = page.rows;
  const [selected, setSelected] = useState<{
    readonly row: LedgerRow;
    readonly named: Named;
  } | null>(first === undefined ? null : { row: first, named: page.named });
  const [verifying, setVerifying] = useState(false);
  const words = useWords(selected?.named ?? page.named);
  const zone = useZone();
  const newest = first?.occurredAt ?? '2026-01-01T00:00:00Z';
  const year = newest.slice(0, 4);
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Ledger</h1>
            <span
              className="figure quiet"
              title={
                page.signedAt === null ? undefined : `Signed ${momentText(page.signedAt, zone)}`
              }
            >
              {page.everything
                ? `${page.size.toLocaleString('en-GB')} entries, ` +
                  `${page.signedAt === null ? 'none' : page.signedSize.toLocaleString('en-GB')} ` +
                  'signed'
                : 'of your documents, your dispatches, your acts'}
            </span>
            <span className="gap" />
            {page.everything && (
              <Button
                aria-expanded={verifying}
                onClick={() => {
                  setVerifying(!verifying);
                }}
              >
                Verify
              </Button>
            )}
            <Button component={Link} href={opensAddress('/ledger/opens', opensFilterOf(filter))}>
              Opens by person
            </Button>
            <Button component="a" href={addressOf('/api/v1/ledger/export', filter, {})} download>
              Export {page.total.toLocaleString('en-GB')}
            </Button>
          </div>
          <div className="row above-8">
            <FindFilter key={JSON.stringify(filter)} filter={filter} />
            <FilterChips filter={filter} named={page.named} mine={page.everything} />
          </div>
          <SavedViews views={page.views} filter={filter} />
        </div>
        <div className="scroll">
          {page.recorded !== null && (
            <div className="over-time">
              <Histogram
                days={page.days}
                first={page.recorded.first}
                last={page.recorded.last}
                filter={filter}
              />
              <WorldPicture map={page.map} filter={filter} />
            </div>
          )}
          <Facets facets={page.facets} filter={filter} />
          {page.rows.length === 0 ? (
            <div className="empty">
              <h2>No entries match these filters</h2>
              <p>
                <Link href="/ledger">Clear filters</Link>
              </p>
            </div>
          ) : (
            <>
              <p className="quiet" style={{ margin: '8px 22px 0', fontSize: 12.5 }}>
                {page.folded ? (
                  <>
                    Pages and keys are folded into their open.{' '}
                    <Link href={addressOf('/ledger', filter, { each: 'yes' })}>
                      Show every entry
                    </Link>
                  </>
                ) : (
                  <>
                    Every entry is shown separately.
                    {filter.each !== undefined && (
                      <>
                        {' '}
                        <Link href={addressOf('/ledger', filter, { each: undefined })}>
                          Fold into opens
                        </Link>
                      </>
                    )}
                  </>
                )}{' '}
                Times in {zone}, {year} ({zoneName(Date.parse(newest), zone)})
                {page.zone === zone ? '' : `; days in ${page.zone}`}.
              </p>
              <EntryRows
                key={JSON.stringify(filter)}
                page={page}
                year={year}
                selected={selected?.row.sequence ?? null}
                onSelect={setSelected}
              />
              {page.older !== null && (
                <div style={{ padding: '12px 22px' }}>
                  <Button
                    component={Link}
                    href={addressOf('/ledger', filter, { before: page.older })}
                  >
                    Older entries
                  </Button>
                </div>
              )}
            </>
          )}
        </div>
      </div>
      <aside className="side" aria-label="The selected entry">
        {verifying && (
          <>
            <VerifyPanel size={page.size} />
            <hr />
          </>
        )}
        {selected === null ? (
          <p className="quiet">Select an entry to see its details.</p>
        ) : (
          <EntryPanel row={selected.row} words={words} filter={filter} />
        )}
      </aside>
    </main>
  );
}
