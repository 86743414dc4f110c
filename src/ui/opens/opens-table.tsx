'use client';

import Link from 'next/link';
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
    <table className="list">
      <thead>
        <tr>
          <th>Person</th>
          {columns.map(({ id, title, reference }) => (
            <th key={id} className="number" title={title}>
              <Link href={opensAddress('/ledger/opens', filter, { document: id })}>
                {reference === '' ? title : reference}
              </Link>
            </th>
          ))}
          {columns.length === 0 && <th className="number">Documents opened</th>}
          <th className="number">Opens</th>
          <th className="number">Refused</th>
          <th>First open</th>
          <th>Last open</th>
          <th style={{ width: 300 }}>
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
          </th>
        </tr>
      </thead>
      <tbody>
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
      </tbody>
    </table>
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
    <tr>
      <td>
        <Link href={`/people?person=${recipient}`}>{name === '' ? address : name}</Link>
        <br />
        <span className="quiet small">
          {organisation === '' ? address : organisation}
        </span>
      </td>
      {columns.map((id) => (
        <td key={id} className="number">
          <Figure
            cell={cells.find(({ document }) => document === id)}
            recipient={recipient}
            filter={filter}
          />
        </td>
      ))}
      {columns.length === 0 && (
        <td className="number">
          {opened} of {cells.length}
        </td>
      )}
      <td className="number">
        {opens === 0 ? (
          <span className="lamp">never</span>
        ) : (
          <Link href={entriesAddress(filter, { recipient, kind: 'opened' })}>{opens}</Link>
        )}
      </td>
      <td className="number">
        {refused === 0 ? (
          0
        ) : (
          <Link className="magenta" href={entriesAddress(filter, { recipient, kind: 'refused' })}>
            {refused}
          </Link>
        )}
      </td>
      <td className="figure small">
        {first === null ? '' : dayText(first)}
      </td>
      <td className="figure small">
        {last === null ? '' : dayText(last)}
      </td>
      <td>{span !== null && <Line row={row} span={span} most={most} />}</td>
    </tr>
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
