'use client';

import Link from 'next/link';
import type { DocumentRow } from '@/contracts/document';
import type { Column } from '@/ui/tables/column';
import { Moment } from '@/ui/time/moment';
import { AudienceFigure } from '@/ui/words/audience-figure';
import { EntriesFigure } from '@/ui/words/entries-figure';
import { sizeText } from '@/ui/words/size-words';

/** The list of documents; the server orders it. */
export const documentColumns: readonly Column<DocumentRow>[] = [
  {
    id: 'title',
    header: 'Title',
    width: 214,
    orderBy: 'server',
    kind: 'oneline',
    cell: (row) => (
      <>
        <Link prefetch={false} href={`/documents/${row.id}`} title={row.title}>
          {row.title}
        </Link>
        {row.version > 1 && <span className="figure quiet"> v{row.version}</span>}
      </>
    ),
  },
  {
    id: 'reference',
    header: 'Reference',
    width: 112,
    orderBy: 'server',
    kind: 'figure',
    cell: (row) => row.reference,
  },
  {
    id: 'marking',
    header: 'Marking',
    width: 112,
    orderBy: 'server',
    kind: 'oneline',
    cell: (row) => row.marking ?? <span className="quiet">none</span>,
  },
  {
    id: 'owner',
    header: 'Owner',
    width: 86,
    orderBy: 'server',
    kind: 'oneline',
    cell: (row) => row.ownerName,
  },
  {
    id: 'pages',
    header: 'Pages',
    width: 62,
    orderBy: 'server',
    kind: 'number',
    cell: (row) => (row.pages === 0 ? '–' : row.pages),
  },
  {
    id: 'bytes',
    header: 'Size',
    width: 72,
    orderBy: 'server',
    kind: 'number',
    cell: (row) => sizeText(row.bytes),
  },
  {
    id: 'people',
    header: 'People',
    width: 68,
    orderBy: 'server',
    kind: 'number',
    cell: (row) => <AudienceFigure people={row.people} unknown={row.unknown} />,
  },
  {
    id: 'opens',
    header: 'Opens',
    width: 66,
    orderBy: 'server',
    kind: 'number',
    cell: (row) => <EntriesFigure n={row.opens} of={{ document: row.id, kind: 'opened' }} />,
  },
  {
    id: 'protectedAt',
    header: 'Protected',
    width: 138,
    orderBy: 'server',
    cell: (row) => <Moment at={row.protectedAt} />,
  },
  {
    id: 'state',
    header: 'State',
    width: 128,
    orderBy: 'server',
    kind: 'oneline',
    cell: (row) => <DocumentState row={row} />,
  },
];

function DocumentState({ row }: { readonly row: DocumentRow }) {
  if (row.revoked) return <span className="magenta">revoked</span>;
  if (row.people === 0 && !row.unknown) return <span className="quiet">not dispatched</span>;
  return 'dispatched';
}
