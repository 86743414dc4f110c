'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { HeldRow } from '@/contracts/dispatch';
import type { DispatchesPage } from '@/contracts/dispatch-list';
import { dispatchColumns } from '@/ui/dispatches/dispatch-columns';
import { DispatchFilters, dispatchesAddress } from '@/ui/dispatches/dispatch-filters';
import { ImportGrants } from '@/ui/dispatches/import-grants';
import { HeldRows } from '@/ui/held/held-rows';
import { Empty } from '@/ui/shell/empty';
import { ListHead } from '@/ui/shell/list-head';
import { useHolds } from '@/ui/shell/permissions';
import { DataTable } from '@/ui/tables/data-table';
import { useSearchInAddress } from '@/ui/tables/use-address';
import { SavedViews } from '@/ui/views/saved-views';

/** Everything that was sent, narrowed by what stands in the address. */
export function DispatchesView({
  page,
  held,
  now,
}: {
  readonly page: DispatchesPage;
  readonly held: readonly HeldRow[];
  readonly now: number;
}) {
  const { rows, total, filter, views } = page;
  const [search, setSearch] = useState(filter.q);
  const [importing, setImporting] = useState(false);
  const searchIn = useSearchInAddress('/dispatches', filter);
  const dispatches = useHolds('dispatch');
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <ListHead
            title="Dispatches"
            words={
              rows.length === total
                ? `${String(total)} in all`
                : `${String(rows.length)} of ${String(total)}`
            }
            search={search}
            onSearch={(text) => {
              setSearch(text);
              searchIn(text);
            }}
            placeholder="subject, recipient, document"
          >
            {dispatches && (
              <Button
                aria-expanded={importing}
                onClick={() => {
                  setImporting(!importing);
                }}
              >
                {importing ? 'Close' : 'Import access'}
              </Button>
            )}
            {dispatches && (
              <Button component={Link} href="/compose">
                Compose
              </Button>
            )}
          </ListHead>
          {total > 0 && <DispatchFilters page={page} />}
          <SavedViews
            place="dispatches"
            views={views}
            query={dispatchesAddress(filter).replace(/^\/dispatches\??/, '')}
          />
          {importing && <ImportGrants />}
          <HeldRows held={held} now={now} />
        </div>
        {rows.length > 0 ? (
          <DataTable
            id="dispatches"
            label="Dispatches"
            columns={dispatchColumns}
            rows={rows}
            keyOf={(row) => row.id}
            fills={33}
          />
        ) : (
          <Nothing none={total === 0} />
        )}
      </div>
    </main>
  );
}

function Nothing({ none }: { readonly none: boolean }) {
  if (!none)
    return (
      <Empty title="Nothing matches">
        No dispatch passes these filters. <Link href="/dispatches">Clear filters</Link>
      </Empty>
    );
  return (
    <Empty title="No dispatches yet">
      Protect a document first, then compose a dispatch: choose people, what they may do and until
      when. <Link href="/documents">Go to Documents</Link>
    </Empty>
  );
}
