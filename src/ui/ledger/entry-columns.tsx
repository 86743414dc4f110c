'use client';

import type { LedgerRow, Named } from '@/contracts/ledger';
import { didWords } from '@/core/insight/did-words';
import { factLine, factsOf } from '@/core/insight/entry-facts';
import { useWords } from '@/ui/ledger/use-words';
import { Mark, markOf } from '@/ui/marks/mark';
import { ChipButton } from '@/ui/shell/chips';
import type { Column } from '@/ui/tables/column';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';

/** An entry, with what the ids in it are called. */
export type Line = { readonly row: LedgerRow; readonly named: Named };

/** What a list leaves to its columns and to the panel beside it. */
const IN_COLUMNS = ['Version', 'Device', 'Dispatch'];

type Acts = {
  readonly onSelect: (line: Line) => void;
  readonly isOpen: (row: LedgerRow) => boolean;
  readonly onFold: (row: LedgerRow) => void;
};

/**
 * The entries' columns. They are in the order in which they were written, which is what the chain
 * proves; filters and counts find what another order would.
 */
export function entryColumns(year: string, { onSelect, isOpen, onFold }: Acts): Column<Line>[] {
  return [
    {
      id: 'when',
      header: 'When',
      width: 136,
      cell: (line) => (
        <RowButton
          plain
          onPress={() => {
            onSelect(line);
          }}
        >
          <Moment
            at={Date.parse(line.row.occurredAt)}
            brief={line.row.occurredAt.startsWith(year)}
          />
        </RowButton>
      ),
    },
    {
      id: 'outcome',
      header: 'Outcome',
      width: 34,
      head: <span className="hidden-text">Outcome</span>,
      cell: ({ row }) => <Mark kind={markOf(row.action, row.outcome)} />,
    },
    { id: 'who', header: 'Who', width: 128, kind: 'oneline', cell: ({ row }) => row.who },
    { id: 'did', header: 'Did', width: 116, kind: 'oneline', cell: ({ row }) => didWords(row) },
    { id: 'what', header: 'What', width: 136, kind: 'oneline', cell: ({ row }) => row.what },
    {
      id: 'where',
      header: 'Where',
      width: 80,
      kind: 'oneline',
      cell: ({ row }) => (
        <span className="quiet">{row.place === '' ? row.network : row.place.split(',')[0]}</span>
      ),
    },
    {
      id: 'detail',
      header: 'Detail',
      width: 150,
      kind: 'oneline',
      cell: (line) => (
        <>
          {line.row.within > 0 && (
            <ChipButton
              aria-expanded={isOpen(line.row)}
              onClick={() => {
                onFold(line.row);
              }}
            >
              {line.row.within} within
            </ChipButton>
          )}{' '}
          <Facts line={line} />
        </>
      ),
    },
  ];
}

function Facts({ line: { row, named } }: { readonly line: Line }) {
  const words = useWords(named);
  const stopped = row.outcome === 'refused' || row.outcome === 'failed';
  return (
    <span className={stopped ? 'magenta' : 'quiet'}>
      {factLine(factsOf(row, words), IN_COLUMNS)}
    </span>
  );
}
