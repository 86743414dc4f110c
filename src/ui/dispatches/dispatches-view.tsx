'use client';

import { useMemo, useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DispatchRow, HeldRow } from '@/contracts/dispatch';
import { dispatchColumns } from '@/ui/dispatches/dispatch-columns';
import { ImportGrants } from '@/ui/dispatches/import-grants';
import { HeldRows } from '@/ui/held/held-rows';
import { Empty } from '@/ui/shell/empty';
import { ListHead } from '@/ui/shell/list-head';
import { useHolds } from '@/ui/shell/permissions';
import { DataTable } from '@/ui/tables/data-table';

/** Everything that was sent. */
export function DispatchesView({
  rows,
  held,
  now,
}: {
  readonly rows: readonly DispatchRow[];
  readonly held: readonly HeldRow[];
  readonly now: number;
}) {
  const [search, setSearch] = useState('');
  const [importing, setImporting] = useState(false);
  const dispatches = useHolds('dispatch');
  const shown = useMemo(() => {
    const wanted = search.trim().toLowerCase();
    return rows.filter((row) =>
      `${row.subject} ${row.reference} ${row.sentBy}`.toLowerCase().includes(wanted),
    );
  }, [rows, search]);
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <ListHead
            title="Dispatches"
            words={
              shown.length === rows.length
                ? `${String(rows.length)} in all`
                : `${String(shown.length)} of ${String(rows.length)}`
            }
            search={search}
            onSearch={setSearch}
            placeholder="subject, reference, sender"
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
          {importing && <ImportGrants />}
          <HeldRows held={held} now={now} />
        </div>
        {shown.length > 0 ? (
          <DataTable
            id="dispatches"
            label="Dispatches"
            columns={dispatchColumns}
            rows={shown}
            keyOf={(row) => row.id}
            fills={33}
          />
        ) : (
          <Nothing search={search} none={rows.length === 0} />
        )}
      </div>
    </main>
  );
}

function Nothing({ search, none }: { readonly search: string; readonly none: boolean }) {
  if (!none)
    return (
      <Empty title="Nothing matches">No subject, reference or sender contains “{search}”.</Empty>
    );
  return (
    <Empty title="No dispatches yet">
      Protect a document first, then compose a dispatch: choose people, what they may do and until
      when. <Link href="/documents">Go to Documents</Link>
    </Empty>
  );
}
