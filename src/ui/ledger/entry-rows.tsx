'use client';

import { Fragment, useState } from 'react';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { LedgerPage, LedgerRow, Named } from '@/contracts/ledger';
import { didWords } from '@/core/insight/did-words';
import { factLine, factsOf } from '@/core/insight/entry-facts';
import { ChipButton } from '@/ui/shell/chips';
import { call, sentenceOf } from '@/ui/http/call';
import { useWords } from '@/ui/ledger/use-words';
import { Mark, markOf } from '@/ui/marks/mark';
import { Moment } from '@/ui/time/moment';

/** What a list leaves to its columns and to the panel beside it. */
const IN_COLUMNS = ['Version', 'Device', 'Dispatch'];

type Selected = { readonly row: LedgerRow; readonly named: Named };
type Props = {
  readonly page: Pick<LedgerPage, 'rows' | 'named'>;
  readonly year: string;
  readonly selected: number | null;
  readonly onSelect: (selected: Selected) => void;
};
type Within = Pick<LedgerPage, 'rows' | 'named'> | { readonly problem: string };

/** Entries, the newest first; what happened within an open folds out below it. */
export function EntryRows({ page, year, selected, onSelect }: Props) {
  const [opened, setOpened] = useState<ReadonlyMap<number, Within>>(new Map());
  const toggle = (row: LedgerRow) => {
    const put = (within: Within | null) => {
      setOpened(
        (before) =>
          new Map(
            [...before]
              .filter(([sequence]) => sequence !== row.sequence)
              .concat(within === null ? [] : [[row.sequence, within]]),
          ),
      );
    };
    if (opened.has(row.sequence)) put(null);
    else
      call<Pick<LedgerPage, 'rows' | 'named'>>(
        'GET',
        `/api/v1/ledger/within/${row.licence ?? ''}`,
      ).then(put, (error: unknown) => {
        put({ problem: sentenceOf(error) });
      });
  };
  return (
    <Table className="list entries">
      <TableHead>
        <TableRow>
          <TableCell>When</TableCell>
          <TableCell>
            <span className="hidden-text">Outcome</span>
          </TableCell>
          <TableCell>Who</TableCell>
          <TableCell>Did</TableCell>
          <TableCell>What</TableCell>
          <TableCell>Where</TableCell>
          <TableCell>Detail</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {page.rows.map((row) => {
          const within = opened.get(row.sequence);
          return (
            <Fragment key={row.sequence}>
              <EntryRow
                row={row}
                named={page.named}
                year={year}
                selected={selected}
                onSelect={onSelect}
                fold={
                  row.within === 0
                    ? null
                    : {
                        open: within !== undefined,
                        toggle: () => {
                          toggle(row);
                        },
                      }
                }
              />
              {within !== undefined && 'problem' in within && (
                <TableRow>
                  <TableCell colSpan={7} role="alert" className="magenta">
                    {within.problem}
                  </TableCell>
                </TableRow>
              )}
              {within !== undefined &&
                'rows' in within &&
                within.rows.map((each) => (
                  <EntryRow
                    key={each.sequence}
                    row={each}
                    named={within.named}
                    year={year}
                    selected={selected}
                    onSelect={onSelect}
                    fold={null}
                    inside
                  />
                ))}
            </Fragment>
          );
        })}
      </TableBody>
    </Table>
  );
}

type RowProps = Omit<Props, 'page'> & {
  readonly row: LedgerRow;
  readonly named: Named;
  readonly fold: { readonly open: boolean; readonly toggle: () => void } | null;
  readonly inside?: boolean;
};

function EntryRow({ row, named, year, selected, onSelect, fold, inside = false }: RowProps) {
  const words = useWords(named);
  const stopped = row.outcome === 'refused' || row.outcome === 'failed';
  return (
    <TableRow aria-selected={row.sequence === selected} className={inside ? 'inside' : undefined}>
      <TableCell>
        <button
          type="button"
          className="row-button plain"
          onClick={() => {
            onSelect({ row, named });
          }}
        >
          <Moment at={Date.parse(row.occurredAt)} brief={row.occurredAt.startsWith(year)} />
        </button>
      </TableCell>
      <TableCell>
        <Mark kind={markOf(row.action, row.outcome)} />
      </TableCell>
      <TableCell className="oneline">{row.who}</TableCell>
      <TableCell className="oneline">{didWords(row)}</TableCell>
      <TableCell className="oneline">{row.what}</TableCell>
      <TableCell className="oneline quiet">
        {row.place === '' ? row.network : row.place.split(',')[0]}
      </TableCell>
      <TableCell className={`oneline ${stopped ? 'magenta' : 'quiet'}`}>
        {fold !== null && (
          <ChipButton aria-expanded={fold.open} onClick={fold.toggle}>
            {row.within} within
          </ChipButton>
        )}{' '}
        {factLine(factsOf(row, words), IN_COLUMNS)}
      </TableCell>
    </TableRow>
  );
}
