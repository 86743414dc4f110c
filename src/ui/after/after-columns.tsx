'use client';

import Link from 'next/link';
import type { AfterRow } from '@/contracts/after-revocation';
import { counted } from '@/core/base/counted';
import { takenText, wayText } from '@/core/insight/after-words';
import { addresseeName } from '@/core/policy/addressee-name';
import { ChipButton } from '@/ui/shell/chips';
import type { Column } from '@/ui/tables/column';
import { Moment } from '@/ui/time/moment';

/** Who was shut out, by what, since when, and what they took; each to be taken back. */
export function afterColumns(
  oneDocument: boolean,
  busy: boolean,
  onReinstate: (row: AfterRow) => void,
): readonly Column<AfterRow>[] {
  return [
    {
      id: 'who',
      header: 'Who',
      width: 180,
      orderBy: addresseeName,
      cell: (row) => (
        <>
          {row.kind === 'person' || row.kind === 'visitor' ? (
            <Link prefetch={false} href={`/people?person=${row.recipient}`}>
              {addresseeName(row)}
            </Link>
          ) : (
            addresseeName(row)
          )}
          <span className="under">{row.organisation}</span>
        </>
      ),
    },
    oneDocument
      ? {
          id: 'by',
          header: 'By',
          width: 110,
          orderBy: (row) => row.dispatch,
          cell: (row) => row.dispatch,
        }
      : {
          id: 'document',
          header: 'Document',
          width: 180,
          orderBy: (row) => row.title,
          cell: (row) => (
            <>
              {row.title}
              <span className="under figure">{row.reference}</span>
            </>
          ),
        },
    {
      id: 'since',
      header: 'Shut out',
      width: 240,
      orderBy: (row) => row.since,
      cell: (row) => <Standing row={row} />,
    },
    {
      id: 'tried',
      header: 'Tried since',
      width: 180,
      orderBy: (row) => row.tries + row.triesByOthers,
      cell: (row) => (
        <span className={row.tries + row.triesByOthers > 0 ? 'magenta' : 'quiet'}>
          <Tried row={row} />
        </span>
      ),
    },
    { id: 'took', header: 'What they took', width: 190, cell: (row) => <Taken row={row} /> },
    {
      id: 'undo',
      header: '',
      width: 110,
      cell: (row) =>
        row.undo.length > 0 && (
          <ChipButton
            disabled={busy}
            onClick={() => {
              onReinstate(row);
            }}
          >
            Reinstate
          </ChipButton>
        ),
    },
  ];
}

function Taken({ row: { copies } }: { readonly row: AfterRow }) {
  const taken = takenText(copies);
  return (
    <span className="quiet">
      {taken.join(', ')}
      {copies.keptAt !== null && (
        <>
          {taken.length > 0 && ', '}a copy kept <Moment at={copies.keptAt} />
        </>
      )}
      {taken.length === 0 && copies.keptAt === null && 'nothing recorded'}
    </span>
  );
}

/** Whether they tried since, or others by what they were sent. */
function Tried({ row: { tries, lastTry, triesByOthers } }: { readonly row: AfterRow }) {
  if (tries + triesByOthers === 0) return 'no';
  return (
    <>
      {tries > 0 && (
        <>
          {counted(tries, 'time')}, last <Moment at={lastTry ?? 0} />
          {triesByOthers > 0 && <br />}
        </>
      )}
      {triesByOthers > 0 && `others ${counted(triesByOthers, 'time')}, by what they were sent`}
    </>
  );
}

/** Since when somebody is shut out, or how they still read. */
function Standing({ row }: { readonly row: AfterRow }) {
  if (row.ways.length > 0)
    return (
      <span className="magenta">
        Still reads
        {row.until === null ? (
          ', no end is set'
        ) : (
          <>
            {' '}
            until <Moment at={row.until} />
          </>
        )}
        : {row.ways.map(wayText).join('; ')}
      </span>
    );
  return (
    <>
      {row.since === null ? (
        'shut out'
      ) : (
        <>
          since <Moment at={row.since} />
        </>
      )}
      {row.by !== '' && <span className="quiet"> by {row.by}</span>}
      {row.reason !== '' && <span className="under">“{row.reason}”</span>}
      {row.offlineUntil !== null && (
        <span className="under lamp">
          may go on reading what was open until <Moment at={row.offlineUntil} />
        </span>
      )}
    </>
  );
}
