'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import type { Line } from '@/ui/ledger/entry-columns';
import { EntryPanel } from '@/ui/ledger/entry-panel';
import { EntryRows } from '@/ui/ledger/entry-rows';
import { Facets } from '@/ui/ledger/facets';
import { FoldLine } from '@/ui/ledger/fold-line';
import { Histogram } from '@/ui/ledger/histogram';
import { addressOf } from '@/ui/ledger/ledger-address';
import { LedgerHead } from '@/ui/ledger/ledger-head';
import { useWords } from '@/ui/ledger/use-words';
import { VerifyPanel } from '@/ui/ledger/verify-panel';
import { WorldPicture } from '@/ui/ledger/world-picture';
import { Empty } from '@/ui/shell/empty';

type Props = { readonly page: LedgerPage; readonly filter: LedgerInput };

/** Everything that happened, filtered by what stands in the address. */
export function LedgerView({ page, filter }: Props) {
  const [first] = page.rows;
  const [selected, setSelected] = useState<Line | null>(
    first === undefined ? null : { row: first, named: page.named },
  );
  const [verifying, setVerifying] = useState(false);
  const words = useWords(selected?.named ?? page.named);
  return (
    <main className="work">
      <div className="surface">
        <LedgerHead
          page={page}
          filter={filter}
          verifying={verifying}
          onVerify={() => {
            setVerifying(!verifying);
          }}
        />
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
          <Entries
            page={page}
            filter={filter}
            selected={selected?.row.sequence ?? null}
            onSelect={setSelected}
          />
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

function Entries({
  page,
  filter,
  selected,
  onSelect,
}: Props & {
  readonly selected: number | null;
  readonly onSelect: (line: Line) => void;
}) {
  const newest = page.rows[0]?.occurredAt;
  if (newest === undefined)
    return (
      <Empty title="No entries match these filters">
        <Link href="/ledger">Clear filters</Link>
      </Empty>
    );
  return (
    <>
      <FoldLine page={page} filter={filter} newest={newest} />
      <EntryRows
        key={JSON.stringify(filter)}
        page={page}
        year={newest.slice(0, 4)}
        selected={selected}
        onSelect={onSelect}
      />
      {page.older !== null && (
        <div className="part">
          <Button component={Link} href={addressOf('/ledger', filter, { before: page.older })}>
            Older entries
          </Button>
        </div>
      )}
    </>
  );
}
