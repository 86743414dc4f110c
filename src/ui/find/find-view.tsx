'use client';

import Link from 'next/link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { FindPage, Found } from '@/contracts/find';

function Tally({ title, found }: { readonly title: string; readonly found: readonly Found[] }) {
  if (found.length === 0) return null;
  return (
    <section aria-label={title} className="today">
      <h2>
        {title} <span className="figure">{found.length}</span>
      </h2>
      <Table className="list">
        <TableBody>
          {found.map((each) => (
            <TableRow key={each.href}>
              <TableCell width="45%">
                <Link href={each.href}>{each.title}</Link>
              </TableCell>
              <TableCell className="quiet">{each.under}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </section>
  );
}

/** What was found, by kind. */
export function FindView({ page }: { readonly page: FindPage }) {
  const { wanted, documents, people, dispatches } = page;
  const count = documents.length + people.length + dispatches.length;
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{wanted === '' ? 'Find' : `“${wanted}”`}</h1>
            <span className="quiet">
              {wanted === ''
                ? 'Type a name, an email address, a title or a reference in the box at the left.'
                : `${String(count)} found`}
            </span>
          </div>
        </div>
        <div className="scroll part-body">
          {wanted !== '' && count === 0 && (
            <div className="empty flush">
              <h2>Nothing found</h2>
              <p>
                No document, person or dispatch has “{wanted}” in its name. Search the ledger with
                its own filters.
              </p>
            </div>
          )}
          <Tally title="Documents" found={documents} />
          <Tally title="People" found={people} />
          <Tally title="Dispatches" found={dispatches} />
        </div>
      </div>
    </main>
  );
}
