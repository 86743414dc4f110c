'use client';

import { useMemo } from 'react';
import TextField from '@mui/material/TextField';
import type { Lacking } from '@/contracts/lacking';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { tickColumn, type Ticks } from '@/ui/tables/ticks';

type LackingRow = Lacking['rows'][number];

const onceWords = { revoked: 'was revoked', expired: 'expired' } as const;

/** What can be given, searched and ticked. */
export function GiveChoice<Id extends string>({
  title,
  lacking,
  ticks,
  search,
  onSearch,
}: {
  readonly title: string;
  readonly lacking: Lacking;
  readonly ticks: Ticks<Id>;
  readonly search: string;
  readonly onSearch: (search: string) => void;
}) {
  const { rows, total } = lacking;
  const columns = useMemo(
    (): readonly Column<LackingRow>[] => [
      tickColumn<LackingRow, Id>({
        rows,
        ticks,
        // The route says of what kind they are, and the panel asks of which.
        idOf: ({ id }) => id as Id,
        nameOf: ({ name }) => name,
        may: () => true,
        all: 'Select all of these',
      }),
      {
        id: 'name',
        header: total > rows.length ? `the first ${String(rows.length)}` : 'all of them',
        width: 210,
        orderBy: ({ name }) => name,
        cell: ({ name, detail, once }) => (
          <>
            {name}
            <span className="under">
              {detail}
              {once !== null && <span className="lamp"> · {onceWords[once]}</span>}
            </span>
          </>
        ),
      },
    ],
    [rows, total, ticks],
  );
  return (
    <>
      <TextField
        label="Search"
        className="above-6"
        value={search}
        onChange={({ target }) => {
          onSearch(target.value);
        }}
      />
      <div
        className="choice-list"
        tabIndex={0}
        role="region"
        aria-label={`${title}, to choose from`}
      >
        <DataTable id="give" label={title} columns={columns} rows={rows} keyOf={({ id }) => id} />
      </div>
    </>
  );
}
