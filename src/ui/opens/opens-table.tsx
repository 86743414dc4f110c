'use client';

import { useMemo } from 'react';
import Link from 'next/link';
import type { OpensInput, OpensPage, OpensRow } from '@/contracts/opens';
import { dayText } from '@/core/base/moment-text';
import { OpensFigure, OpensLine } from '@/ui/opens/opens-cells';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { entriesAddress, opensAddress } from '@/ui/words/opens-address';

/** Documents that have a column of their own; with more of them there is one figure for all. */
const MOST_COLUMNS = 6;

function nameOf({ name, address }: OpensRow): string {
  return name === '' ? address : name;
}

function person(): Column<OpensRow> {
  return {
    id: 'person',
    header: 'Person',
    width: 200,
    kind: 'oneline',
    orderBy: nameOf,
    cell: (row) => (
      <>
        <Link prefetch={false} href={`/people?person=${row.recipient}`}>
          {nameOf(row)}
        </Link>
        <span className="under oneline">
          {row.organisation === '' ? row.address : row.organisation}
        </span>
      </>
    ),
  };
}

/** A column for each document, or one figure for all of them. */
function documentColumns(
  documents: OpensPage['documents'],
  filter: OpensInput,
): readonly Column<OpensRow>[] {
  if (documents.length > MOST_COLUMNS)
    return [
      {
        id: 'opened',
        header: 'Documents opened',
        width: 130,
        kind: 'number',
        orderBy: ({ cells }) => cells.filter((cell) => cell.opens > 0).length,
        cell: ({ cells }) =>
          `${String(cells.filter((cell) => cell.opens > 0).length)} of ${String(cells.length)}`,
      },
    ];
  return documents.map(({ id, title, reference }) => {
    const cellOf = ({ cells }: OpensRow) => cells.find(({ document }) => document === id);
    return {
      id,
      header: reference === '' ? title : reference,
      width: 96,
      kind: 'number',
      head: (
        <Link
          prefetch={false}
          title={title}
          href={opensAddress('/ledger/opens', filter, { document: id })}
        >
          {reference === '' ? title : reference}
        </Link>
      ),
      cell: (row) => <OpensFigure cell={cellOf(row)} recipient={row.recipient} filter={filter} />,
    };
  });
}

function totals(filter: OpensInput): readonly Column<OpensRow>[] {
  return [
    {
      id: 'opens',
      header: 'Opens',
      width: 70,
      kind: 'number',
      orderBy: ({ opens }) => opens,
      cell: ({ recipient, opens }) =>
        opens === 0 ? (
          <span className="lamp">never</span>
        ) : (
          <Link prefetch={false} href={entriesAddress(filter, { recipient, kind: 'opened' })}>
            {opens}
          </Link>
        ),
    },
    {
      id: 'refused',
      header: 'Refused',
      width: 78,
      kind: 'number',
      orderBy: ({ refused }) => refused,
      cell: ({ recipient, refused }) =>
        refused === 0 ? (
          0
        ) : (
          <Link
            prefetch={false}
            className="magenta"
            href={entriesAddress(filter, { recipient, kind: 'refused' })}
          >
            {refused}
          </Link>
        ),
    },
    day('first', 'First open', ({ first }) => first),
    day('last', 'Last open', ({ last }) => last),
  ];
}

function day(
  id: string,
  header: string,
  dayOf: (row: OpensRow) => string | null,
): Column<OpensRow> {
  return {
    id,
    header,
    width: 98,
    kind: 'figure',
    orderBy: dayOf,
    cell: (row) => {
      const given = dayOf(row);
      return given === null ? '' : dayText(given);
    },
  };
}

/** A line of days for each, as far as the first and the last of all. */
function line(span: NonNullable<OpensPage['span']>, most: number): Column<OpensRow> {
  return {
    id: 'days',
    header: 'Days',
    width: 300,
    head: (
      <span className="figure span-ends">
        <span>{dayText(span.first)}</span>
        <span>{dayText(span.last)}</span>
      </span>
    ),
    cell: (row) => <OpensLine row={row} span={span} most={most} />,
  };
}

/** People down, documents across, and a line of days for each. */
export function OpensTable({
  page,
  filter,
}: {
  readonly page: OpensPage;
  readonly filter: OpensInput;
}) {
  const columns = useMemo(() => {
    const { rows, documents, span, people } = page;
    const most = Math.max(1, ...rows.flatMap(({ days }) => days.map(({ opens }) => opens)));
    const all = [
      person(),
      ...documentColumns(documents, filter),
      ...totals(filter),
      ...(span === null ? [] : [line(span, most)]),
    ];
    // An order of the first of many would pass for an order of all.
    return people > rows.length ? all.map(({ orderBy: _orderBy, ...column }) => column) : all;
  }, [page, filter]);
  return (
    <DataTable
      id={page.documents.length > MOST_COLUMNS ? 'opens' : `opens-${String(page.documents.length)}`}
      label="Opens by person"
      columns={columns}
      rows={page.rows}
      keyOf={({ recipient }) => recipient}
    />
  );
}
