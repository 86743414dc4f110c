'use client';

import Link from 'next/link';
import type { ListPeopleInput, PersonRow } from '@/contracts/people';
import type { RecipientId } from '@/core/base/ids';
import type { Column } from '@/ui/tables/column';
import { tickColumn, type Ticks } from '@/ui/tables/ticks';
import { addressWith } from '@/ui/tables/use-address';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

/** The list of people; the server orders it. */
export function peopleColumns(
  filter: ListPeopleInput,
  chosen: RecipientId | undefined,
): readonly Column<PersonRow>[] {
  return [
    {
      id: 'name',
      header: 'Name',
      width: 240,
      orderBy: 'server',
      kind: 'oneline',
      cell: (row) => (
        <>
          <Link
            prefetch={false}
            href={addressWith('/people', { ...filter, person: row.id })}
            scroll={false}
            aria-current={row.id === chosen ? 'true' : undefined}
          >
            {row.name === '' ? row.address : row.name}
          </Link>
          {row.blocked && <span className="magenta"> blocked</span>}
          <span className="under oneline">{row.address}</span>
        </>
      ),
    },
    {
      id: 'organisation',
      header: 'Organisation',
      width: 140,
      orderBy: 'server',
      kind: 'oneline',
      cell: ({ organisation }) =>
        organisation === '' ? (
          <span className="quiet">not known</span>
        ) : (
          <Link
            prefetch={false}
            className="plain"
            href={addressWith('/people', { ...filter, organisation })}
          >
            {organisation}
          </Link>
        ),
    },
    {
      id: 'documents',
      header: 'Documents',
      width: 86,
      orderBy: 'server',
      kind: 'number',
      cell: (row) => row.documents,
    },
    {
      id: 'live',
      header: 'Can open',
      width: 80,
      orderBy: 'server',
      kind: 'number',
      cell: (row) => (row.live === 0 ? <span className="quiet">0</span> : row.live),
    },
    {
      id: 'opens',
      header: 'Opens',
      width: 64,
      orderBy: 'server',
      kind: 'number',
      cell: (row) => <EntriesFigure n={row.opens} of={{ recipient: row.id, kind: 'opened' }} />,
    },
    {
      id: 'lastOpen',
      header: 'Last open',
      width: 160,
      orderBy: 'server',
      cell: ({ lastOpen }) =>
        lastOpen === null ? <span className="quiet">never</span> : <Moment at={lastOpen} />,
    },
  ];
}

/** The column of ticks, by which several are put into a group together. */
export function peopleTicks(
  rows: readonly PersonRow[],
  ticks: Ticks<RecipientId>,
): Column<PersonRow> {
  return tickColumn<PersonRow, RecipientId>({
    rows,
    ticks,
    idOf: ({ id }) => id,
    nameOf: ({ name, address }) => (name === '' ? address : name),
    may: () => true,
    all: 'Select all',
  });
}
