'use client';

import { useMemo, useState } from 'react';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { LedgerPage, LedgerRow } from '@/contracts/ledger';
import { useAsked } from '@/ui/http/use-asked';
import { entryColumns, type Line } from '@/ui/ledger/entry-columns';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { ListRow } from '@/ui/tables/list-rows';

type Props = {
  readonly page: Pick<LedgerPage, 'rows' | 'named'>;
  readonly year: string;
  readonly selected: number | null;
  readonly onSelect: (selected: Line) => void;
};

/** Entries, the newest first; what happened within an open folds out below it. */
export function EntryRows({ page, year, selected, onSelect }: Props) {
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set());
  const columns = useMemo(
    () =>
      entryColumns(year, {
        onSelect,
        isOpen: ({ sequence }) => opened.has(sequence),
        onFold: ({ sequence }) => {
          setOpened((before) => {
            const after = new Set(before);
            if (!after.delete(sequence)) after.add(sequence);
            return after;
          });
        },
      }),
    [year, opened, onSelect],
  );
  const lines = useMemo(
    () => page.rows.map((row): Line => ({ row, named: page.named })),
    [page.rows, page.named],
  );
  const isSelected = ({ row }: Line) => row.sequence === selected;
  return (
    <DataTable
      id="ledger"
      label="Entries"
      columns={columns}
      rows={lines}
      keyOf={({ row }) => String(row.sequence)}
      isSelected={isSelected}
      below={({ row }) =>
        opened.has(row.sequence) && (
          <Within licence={row.licence} columns={columns} isSelected={isSelected} />
        )
      }
    />
  );
}

/** What happened within an open. */
function Within({
  licence,
  columns,
  isSelected,
}: {
  readonly licence: LedgerRow['licence'];
  readonly columns: readonly Column<Line>[];
  readonly isSelected: (line: Line) => boolean;
}) {
  const { answer, problem } = useAsked(
    'GET /api/v1/ledger/within/:licence',
    licence === null ? null : { licence },
  );
  if (answer === null)
    return (
      <TableRow>
        <TableCell colSpan={columns.length} className={problem === null ? 'quiet' : 'magenta'}>
          <span role={problem === null ? 'status' : 'alert'}>{problem ?? 'Looking…'}</span>
        </TableCell>
      </TableRow>
    );
  return answer.rows.map((row) => {
    const line = { row, named: answer.named };
    return (
      <ListRow
        key={row.sequence}
        className="inside"
        row={line}
        columns={columns}
        selected={isSelected(line)}
      />
    );
  });
}
