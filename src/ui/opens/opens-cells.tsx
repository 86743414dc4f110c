'use client';

import Link from 'next/link';
import type { OpensCell, OpensInput, OpensPage, OpensRow } from '@/contracts/opens';
import { counted } from '@/core/base/counted';
import { dayText } from '@/core/base/moment-text';
import { discsOf } from '@/ui/opens/opens-plot';
import { entriesAddress } from '@/ui/words/opens-address';

/** How often one document was opened: nothing where it was never given. */
export function OpensFigure({
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
  const entries = (kind: 'opened' | 'refused') =>
    entriesAddress(filter, { recipient, document: cell.document, kind });
  if (cell.opens > 0)
    return (
      <Link prefetch={false} href={entries('opened')}>
        {cell.opens}
      </Link>
    );
  if (cell.refused > 0)
    return (
      <Link prefetch={false} className="magenta" href={entries('refused')}>
        refused
      </Link>
    );
  return <span className="lamp">never</span>;
}

/** On which days somebody opened something: a disc for each, larger for more. */
export function OpensLine({
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
