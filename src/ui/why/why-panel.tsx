'use client';

import { useEffect, useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Explained, NamedReason } from '@/contracts/explain';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { call, sentenceOf } from '@/ui/http/call';
import { Moment } from '@/ui/time/moment';
import { momentText } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';
import {
  deedOf,
  differences,
  endedByWords,
  refusedWords,
  remedyOf,
  rightRule,
  ruleWords,
  verdictWords,
} from '@/ui/why/why-words';
import { rightsLine } from '@/core/policy/rights-line';
import { MomentField } from '@/ui/time/moment-field';

type Asked = {
  readonly at: number | null;
  readonly network: string;
  readonly country: string;
  readonly device: string;
  readonly address: string;
};
const NOW: Asked = { at: null, network: '', country: '', device: '', address: '' };

/**
 * Why a person can or cannot open a document, right by right, with what would change it; now, or at
 * another time, place or device.
 */
export function WhyPanel({
  recipient,
  document,
}: {
  readonly recipient: string;
  readonly document: string;
}) {
  const [asked, setAsked] = useState(NOW);
  const [found, setFound] = useState<Explained | null>(null);
  /** The answer for now, which the others are compared with. */
  const [plain, setPlain] = useState<Explained | null>(null);
  const zone = useZone();
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    const { at, network, country, device, address } = asked;
    const ask = {
      recipient,
      document,
      at,
      network: network === '' ? null : network,
      country: country === '' ? null : country,
      device: device === '' ? null : device,
      address: address === '' ? null : address,
    };
    call<Explained>('POST', '/api/v1/explain', ask).then(
      (answer) => {
        if (!gone) {
          setFound(answer);
          setProblem(null);
          if (asked === NOW) setPlain(answer);
        }
      },
      (error: unknown) => {
        if (!gone) setProblem(sentenceOf(error));
      },
    );
    return () => {
      gone = true;
    };
  }, [asked, recipient, document]);
  if (problem !== null && found === null)
    return (
      <p role="alert" className="magenta">
        {problem}
      </p>
    );
  if (found === null) return <p className="quiet">Looking…</p>;
  return (
    <section aria-label="Why" className="stack">
      <p className="answer">{answer(found)}</p>
      <p className="quiet">
        <Rule reason={found.why} past={found.past} />
      </p>
      {found.opens && (
        <Table className="list flush">
          <TableBody>
            {found.rights
              .filter(({ right }) => OFFERED_RIGHTS.some((each) => each === right))
              .map(({ right, verdict, reason }) => (
                <TableRow key={right}>
                  <TableCell width="46%" className={verdict?.granted === true ? '' : 'magenta'}>
                    {verdictWords(right, verdict)}
                  </TableCell>
                  <TableCell className="quiet small">
                    {rightRule(verdict, reason) ?? <Rule reason={reason} past={found.past} />}
                  </TableCell>
                </TableRow>
              ))}
          </TableBody>
        </Table>
      )}
      {plain !== null && asked !== NOW && (
        <Compared lines={differences(plain, found, (moment) => momentText(moment, zone))} />
      )}
      <Ways found={found} />
      <WhatIf asked={asked} onAsk={setAsked} />
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </section>
  );
}

function answer({ opens, past, person, document, reason }: Explained): string {
  if (past)
    return opens
      ? `${person} could open “${document}” then.`
      : `${person} could not open “${document}” then: ${refusedWords[reason ?? 'not-addressed']}.`;
  return opens
    ? `${person} can open “${document}”.`
    : `${person} cannot open “${document}”: ${refusedWords[reason ?? 'not-addressed']}.`;
}

/** The rule behind a result, who set it and when, and what would change it. */
function Rule({ reason, past }: { readonly reason: NamedReason; readonly past: boolean }) {
  return (
    <>
      By {ruleWords(reason)}
      {reason.setByName !== '' && (
        <>
          , {deedOf(reason)} {reason.setByName}
        </>
      )}
      {reason.setAt !== null && (
        <>
          {' '}
          <Moment at={reason.setAt} />
        </>
      )}
      {reason.lastChange !== null && (
        <>
          , last changed by {reason.lastChange.by} <Moment at={reason.lastChange.at} />
        </>
      )}
      . {past ? '' : remedyOf(reason)}
    </>
  );
}

function Ways({ found: { ways } }: { readonly found: Explained }) {
  if (ways.length === 0) return null;
  return (
    <>
      <h2>{ways.length === 1 ? 'One way in' : `${String(ways.length)} ways in`}</h2>
      <Table className="list flush">
        <TableBody>
          {ways.map((way) => (
            <TableRow key={way.grant}>
              <TableCell>
                <Link href={`/dispatches/${way.dispatch.id}`} className="figure">
                  {way.dispatch.reference}
                </Link>{' '}
                {way.dispatch.subject}
                <br />
                <span className="quiet small">
                  given by {way.givenBy} <Moment at={way.givenAt} />
                  {way.conditions.map((line) => (
                    <span key={line}>; {line}</span>
                  ))}
                </span>
              </TableCell>
              <TableCell
                style={{ fontSize: 12 }}
                className={way.standing === 'live' ? '' : 'magenta'}
              >
                {way.standing === 'live'
                  ? rightsLine(way.rights, null)
                  : refusedWords[way.standing]}
                {way.until !== null && (
                  <>
                    <br />
                    {way.standing === 'expired' ? 'ended' : 'ends'} <Moment at={way.until} />
                    {endedByWords(way.endedBy)}
                  </>
                )}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  );
}

function Compared({ lines }: { readonly lines: readonly string[] }) {
  return (
    <section aria-label="Compared with now">
      <h2>Compared with now</h2>
      {lines.length === 0 ? (
        <p className="quiet">The same.</p>
      ) : (
        lines.map((line) => <p key={line}>{line}</p>)
      )}
    </section>
  );
}

/** The same question at another time, place or device, or about somebody else. */
function WhatIf({
  asked,
  onAsk,
}: {
  readonly asked: Asked;
  readonly onAsk: (asked: Asked) => void;
}) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <div className="row">
        <Button
          onClick={() => {
            setOpen(true);
          }}
        >
          Try another case
        </Button>
      </div>
    );
  const set =
    (name: Exclude<keyof Asked, 'at'>) =>
    (event: { readonly target: { readonly value: string } }) => {
      onAsk({ ...asked, [name]: event.target.value });
    };
  return (
    <>
      <h2>Another case</h2>
      <div className="row">
        <MomentField
          label="At"
          value={asked.at}
          onChange={(at) => {
            onAsk({ ...asked, at });
          }}
          none="Now"
        />
        <TextField
          select
          label="On"
          value={asked.device}
          onChange={set('device')}
          sx={{ minWidth: 150 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">any device</MenuItem>
          <MenuItem value="kept">a remembered device</MenuItem>
          <MenuItem value="visit">one for a visit</MenuItem>
        </TextField>
        <TextField
          label="From the IP address"
          defaultValue={asked.network}
          onBlur={set('network')}
          placeholder="any"
        />
        <TextField
          label="In the country"
          defaultValue={asked.country}
          onBlur={set('country')}
          placeholder="any"
          sx={{ maxWidth: 130 }}
        />
        <TextField
          label="For another person"
          defaultValue={asked.address}
          onBlur={set('address')}
          placeholder="somebody else"
        />
      </div>
      <div className="row">
        <Button
          variant="text"
          onClick={() => {
            onAsk(NOW);
            setOpen(false);
          }}
        >
          Back to now
        </Button>
      </div>
    </>
  );
}
