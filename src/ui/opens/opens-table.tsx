'use client';

import Link from 'next/link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { counted } from '@/core/base/counted';
import type { OpensCell, OpensInput, OpensPage, OpensRow } from '@/contracts/opens';
import { discsOf } from '@/ui/opens/opens-plot';
import { entriesAddress, opensAddress } from '@/ui/words/opens-address';
import { dayText } from '@/core/base/moment-text';

/** Documents that have a column of their own; with more of them there is one figure for all. */
const MOST_COLUMNS = 6;

/** People down, documents across, and a line of days for each. */
export function OpensTable({
  page,
  filter,
}: {
  readonly page: OpensPage;
  readonly filter: OpensInput;
}) {
  const { rows, documents, span } = page;
  const columns = documents.length <= MOST_COLUMNS ? documents : [];
  const most = Math.max(1, ...rows.flatMap(({ days }) => days.map(({ opens }) => opens)));
  return (
    <Table className="list">
      <TableHead>
        <TableRow>
          <TableCell>Person</TableCell>
          {columns.map(({ id, title, reference }) => (
            <TableCell key={id} className="number" title={title}>
              <Link href={opensAddress('/ledger/opens', filter, { document: id })}>
                {reference === '' ? title : reference}
              </Link>
            </TableCell>
          ))}
          {columns.length === 0 && <TableCell className="number">Documents opened</TableCell>}
          <TableCell className="number">Opens</TableCell>
          <TableCell className="number">Refused</TableCell>
          <TableCell>First open</TableCell>
          <TableCell>Last open</TableCell>
          <TableCell width="300">
            {span !== null && (
              <span
                className="figure"
                style={{
                  fontWeight: 400,
                  fontSize: 11,
                  display: 'flex',
                  justifyContent: 'space-between',
                }}
              >
                <span>{dayText(span.first)}</span>
                <span>{dayText(span.last)}</span>
              </span>
            )}
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map((row) => (
          <PersonRow
            key={row.recipient}
            row={row}
            columns={columns.map(({ id }) => id)}
            filter={filter}
            span={span}
            most={most}
          />
        ))}
      </TableBody>
    </Table>
  );
}

type RowProps = {
  readonly row: OpensRow;
  readonly columns: readonly string[];
  readonly filter: OpensInput;
  readonly span: OpensPage['span'];
  readonly most: number;
};

function PersonRow({ row, columns, filter, span, most }: RowProps) {
  const { recipient, name, address, organisation, cells, opens, refused, first, last } = row;
  const opened = cells.filter((cell) => cell.opens > 0).length;
  return (
    <TableRow>
      <TableCell>
        <Link href={`/people?person=${recipient}`}>{name === '' ? address : name}</Link>
        <br />
        <span className="quiet small">{organisation === '' ? address : organisation}</span>
      </TableCell>
      {columns.map((id) => (
        <TableCell key={id} className="number">
          <Figure
            cell={cells.find(({ document }) => document === id)}
            recipient={recipient}
            filter={filter}
          />
        </TableCell>
      ))}
      {columns.length === 0 && (
        <TableCell className="number">
          {opened} of {cells.length}
        </TableCell>
      )}
      <TableCell className="number">
        {opens === 0 ? (
          <span className="lamp">never</span>
        ) : (
          <Link href={entriesAddress(filter, { recipient, kind: 'opened' })}>{opens}</Link>
        )}
      </TableCell>
      <TableCell className="number">
        {refused === 0 ? (
          0
        ) : (
          <Link className="magenta" href={entriesAddress(filter, { recipient, kind: 'refused' })}>
            {refused}
          </Link>
        )}
      </TableCell>
      <TableCell className="figure small">{first === null ? '' : dayText(first)}</TableCell>
      <TableCell className="figure small">{last === null ? '' : dayText(last)}</TableCell>
      <TableCell>{span !== null && <Line row={row} span={span} most={most} />}</TableCell>
    </TableRow>
  );
}

/** How often one document was opened: nothing where it was never given. */
function Figure({
  cell,
  recipient,
  filter,
}: {
  readonly cell: OpensCell | undefined;
  readonly recipient: string;
  readonly filter: OpensInput;
}) {
  if (cell === undefined)
    return (
      <span className="quiet" aria-label="not given">
        –
      </span>
    );
  if (cell.opens > 0)
    return (
      <Link href={entriesAddress(filter, { recipient, document: cell.document, kind: 'opened' })}>
        {cell.opens}
      </Link>
    );
  return cell.refused > 0 ? (
    <Link
      className="magenta"
      href={entriesAddress(filter, { recipient, document: cell.document, kind: 'refused' })}
    >
      refused
    </Link>
  ) : (
    <span className="lamp">never</span>
  );
}

function Line({
  row,
  span,
  most,
}: {
  readonly row: OpensRow;
  readonly span: NonNullable<OpensPage['span']>;
  readonly most: number;
}) {
  const discs = discsOf(row.days, span, most);
  const said = row.days.length === 0 ? 'never' : `on ${counted(row.days.length, 'day')}`;
  return (
    <svg viewBox="-6 0 312 14" width="100%" height="14" role="img" aria-label={`Opened ${said}`}>
      <line x1="0" x2="300" y1="7" y2="7" stroke="var(--line)" />
      {discs.map(({ first, last, opens, x, r }) => (
        <circle key={first} cx={x * 3} cy="7" r={r} fill="var(--current)">
          <title>
            {`${first === last ? dayText(first) : `${dayText(first)} to ${dayText(last)}`}: ` +
              counted(opens, 'open')}
          </title>
        </circle>
      ))}
    </svg>
  );
}
