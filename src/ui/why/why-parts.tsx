'use client';

import Link from 'next/link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Explained, NamedReason, NamedWay } from '@/contracts/explain';
import { rightsLine } from '@/core/policy/rights-line';
import { Moment } from '@/ui/time/moment';
import { deedOf, endedByWords, refusedWords, remedyOf, ruleWords } from '@/ui/why/why-words';

/** The rule behind a result, who set it and when, and what would change it. */
export function Rule({ reason, past }: { readonly reason: NamedReason; readonly past: boolean }) {
  const { setByName, setAt, lastChange } = reason;
  return (
    <>
      By {ruleWords(reason)}
      {setByName !== '' && `, ${deedOf(reason)} ${setByName}`}
      {setAt !== null && (
        <>
          {' '}
          <Moment at={setAt} />
        </>
      )}
      {lastChange !== null && (
        <>
          , last changed by {lastChange.by} <Moment at={lastChange.at} />
        </>
      )}
      . {past ? '' : remedyOf(reason)}
    </>
  );
}

/** Every grant that bears on it, and what it gives. */
export function Ways({ found: { ways } }: { readonly found: Explained }) {
  if (ways.length === 0) return null;
  return (
    <>
      <h2>{ways.length === 1 ? 'One way in' : `${String(ways.length)} ways in`}</h2>
      <Table className="list flush">
        <TableBody>
          {ways.map((way) => (
            <WayRow key={way.grant} way={way} />
          ))}
        </TableBody>
      </Table>
    </>
  );
}

function WayRow({ way }: { readonly way: NamedWay }) {
  const isLive = way.standing === 'live';
  return (
    <TableRow>
      <TableCell>
        <Link href={`/dispatches/${way.dispatch.id}`} className="figure">
          {way.dispatch.reference}
        </Link>{' '}
        {way.dispatch.subject}
        <span className="under">
          given by {way.givenBy} <Moment at={way.givenAt} />
          {way.conditions.map((line) => (
            <span key={line}>; {line}</span>
          ))}
        </span>
      </TableCell>
      <TableCell className={isLive ? '' : 'magenta'}>
        {way.standing === 'live' ? rightsLine(way.rights, null) : refusedWords[way.standing]}
        {way.until !== null && (
          <>
            <br />
            {way.standing === 'expired' ? 'ended' : 'ends'} <Moment at={way.until} />
            {endedByWords(way.endedBy)}
          </>
        )}
      </TableCell>
    </TableRow>
  );
}
