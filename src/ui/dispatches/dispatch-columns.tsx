'use client';

import Link from 'next/link';
import type { DispatchRow } from '@/contracts/dispatch-list';
import type { Column } from '@/ui/tables/column';
import { Moment } from '@/ui/time/moment';
import { AudienceFigure } from '@/ui/words/audience-figure';
import { EntriesFigure } from '@/ui/words/entries-figure';

/** The list of dispatches. */
export const dispatchColumns: readonly Column<DispatchRow>[] = [
  {
    id: 'subject',
    header: 'Subject',
    width: 240,
    kind: 'oneline',
    orderBy: (row) => row.subject,
    cell: (row) => (
      <Link prefetch={false} href={`/dispatches/${row.id}`}>
        {row.subject}
      </Link>
    ),
  },
  {
    id: 'reference',
    header: 'Reference',
    width: 84,
    kind: 'figure',
    orderBy: (row) => row.reference,
    cell: (row) => row.reference,
  },
  {
    id: 'sentAt',
    header: 'Sent',
    width: 138,
    orderBy: (row) => row.sentAt,
    cell: (row) => <Moment at={row.sentAt} />,
  },
  {
    id: 'sentBy',
    header: 'By',
    width: 84,
    kind: 'oneline',
    orderBy: (row) => row.sentBy,
    cell: (row) => row.sentBy,
  },
  {
    id: 'documents',
    header: 'Documents',
    width: 90,
    kind: 'number',
    orderBy: (row) => row.documents,
    cell: (row) => row.documents,
  },
  {
    id: 'people',
    header: 'People',
    width: 72,
    kind: 'number',
    orderBy: (row) => row.people,
    cell: (row) => <AudienceFigure people={row.people} unknown={row.unknown} />,
  },
  {
    id: 'live',
    header: 'Can open',
    width: 82,
    kind: 'number',
    orderBy: (row) => row.live,
    cell: (row) => row.live,
  },
  {
    id: 'nextEnd',
    header: 'Next end',
    width: 138,
    orderBy: (row) => row.nextEnd,
    cell: (row) =>
      row.nextEnd === null ? (
        <span className="quiet">{row.live > 0 ? 'no end' : 'none active'}</span>
      ) : (
        <Moment at={row.nextEnd} />
      ),
  },
  {
    id: 'opens',
    header: 'Opens',
    width: 66,
    kind: 'number',
    orderBy: (row) => row.opens,
    cell: (row) => <EntriesFigure n={row.opens} of={{ dispatch: row.id, kind: 'opened' }} />,
  },
  {
    id: 'refusals',
    header: 'Refused',
    width: 92,
    kind: 'number',
    orderBy: (row) => row.refusals,
    cell: (row) => <EntriesFigure n={row.refusals} of={{ dispatch: row.id, kind: 'refused' }} />,
  },
];
