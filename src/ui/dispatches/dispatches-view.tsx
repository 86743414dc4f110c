'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { DispatchRow } from '@/contracts/dispatch';
import { useHolds } from '@/ui/shell/permissions';
import { ListHead } from '@/ui/shell/list-head';
import { audience } from '@/ui/words/addressee-words';
import { ImportGrants } from '@/ui/dispatches/import-grants';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

/** Everything that was sent. */
export function DispatchesView({ rows }: { readonly rows: readonly DispatchRow[] }) {
  const [search, setSearch] = useState('');
  const [bringing, setBringing] = useState(false);
  const dispatches = useHolds('dispatch');
  const wanted = search.trim().toLowerCase();
  const shown = rows.filter((row) =>
    `${row.subject} ${row.reference} ${row.sentBy}`.toLowerCase().includes(wanted),
  );
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
                aria-expanded={bringing}
                onClick={() => {
                  setBringing(!bringing);
                }}
              >
                {bringing ? 'Close' : 'Import access'}
              </Button>
            )}
            {dispatches && (
              <Button component={Link} href="/compose">
                Compose
              </Button>
            )}
          </ListHead>
          {bringing && <ImportGrants />}
        </div>
        <div className="scroll">
          {rows.length === 0 ? (
            <div className="empty">
              <h2>No dispatches yet</h2>
              <p>
                Protect a document first, then compose a dispatch: choose people, what they may do
                and until when.
              </p>
              <p>
                <Link href="/documents">Go to Documents</Link>
              </p>
            </div>
          ) : (
            <Table className="list">
              <TableHead>
                <TableRow>
                  <TableCell>Subject</TableCell>
                  <TableCell>Reference</TableCell>
                  <TableCell>Sent</TableCell>
                  <TableCell>By</TableCell>
                  <TableCell className="number">Documents</TableCell>
                  <TableCell className="number">People</TableCell>
                  <TableCell className="number">Can open</TableCell>
                  <TableCell>Next end</TableCell>
                  <TableCell className="number">Opens</TableCell>
                  <TableCell className="number">Refused</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {shown.map((row) => (
                  <TableRow key={row.id}>
                    <TableCell>
                      <Link href={`/dispatches/${row.id}`}>{row.subject}</Link>
                    </TableCell>
                    <TableCell className="figure">{row.reference}</TableCell>
                    <TableCell>
                      <Moment at={row.sentAt} />
                    </TableCell>
                    <TableCell>{row.sentBy}</TableCell>
                    <TableCell className="number">{row.documents}</TableCell>
                    <TableCell className="number">
                      {row.unknown ? (
                        <span title={audience(row.people, true)}>
                          {row.people === 0 ? 'unknown' : `${String(row.people)}+`}
                        </span>
                      ) : (
                        row.people
                      )}
                    </TableCell>
                    <TableCell className="number">{row.live}</TableCell>
                    <TableCell>
                      {row.nextEnd === null ? (
                        <span className="quiet">{row.live > 0 ? 'no end' : 'none active'}</span>
                      ) : (
                        <Moment at={row.nextEnd} />
                      )}
                    </TableCell>
                    <TableCell className="number">
                      <EntriesFigure n={row.opens} of={{ dispatch: row.id, kind: 'opened' }} />
                    </TableCell>
                    <TableCell className="number">
                      <EntriesFigure n={row.refusals} of={{ dispatch: row.id, kind: 'refused' }} />
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          )}
          {rows.length > 0 && shown.length === 0 && (
            <div className="empty">
              <h2>Nothing matches</h2>
              <p>No subject, reference or sender contains “{search}”.</p>
            </div>
          )}
        </div>
      </div>
    </main>
  );
}
