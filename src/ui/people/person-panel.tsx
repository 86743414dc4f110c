'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { refusalName } from '@/core/policy/refusal-names';
import { useState } from 'react';
import Link from 'next/link';
import type { PersonDetail } from '@/contracts/people';
import type { GrantRow } from '@/contracts/dispatch';
import { Note } from '@/ui/shell/notice';
import { ChipButton } from '@/ui/shell/chips';
import { GivePanel } from '@/ui/give/give-panel';
import { AddressesPanel } from '@/ui/people/addresses-panel';
import { GroupsPanel } from '@/ui/people/groups-panel';
import { ShutOut } from '@/ui/people/shut-out';
import { KnownPanel } from '@/ui/people/known-panel';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/core/policy/rights-line';
import { stateOf, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import { WhyPanel } from '@/ui/why/why-panel';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges, type Changes } from '@/ui/grants/use-changes';
import { EntriesFigure } from '@/ui/words/entries-figure';

function answer(person: PersonDetail, canOpen: number): string {
  if (person.leftAt !== null) return 'Has left, so they can open nothing.';
  if (person.blocked) return 'Blocked, so they can open nothing.';
  if (canOpen === 0) return 'Can open nothing now.';
  return `Can open ${String(canOpen)} ${canOpen === 1 ? 'document' : 'documents'} now.`;
}

/** One person: all they hold, what they did with it, and the ways to cut it. */
export function PersonPanel({
  person,
  now,
}: {
  readonly person: PersonDetail;
  readonly now: number;
}) {
  const changes = useChanges();
  const changesAccess = useHolds('change-access');
  const readsRecord = useHolds('read-own-record');
  const gives = useHolds('dispatch');
  const wider = person.wider.filter((grant) => stateOf(grant, now) === 'live');
  const canOpen = person.reach.filter(({ reason }) => reason === null).length;
  const name = person.name === '' ? person.address : person.name;
  return (
    <div className="stack">
      <h2>
        {person.address}
        {person.organisation === '' ? '' : ` · ${person.organisation}`}
      </h2>
      <p className="answer">
        {name}. {answer(person, canOpen)}
      </p>
      <p>
        {person.opens === 0 ? (
          'Never opened anything'
        ) : (
          <>
            <EntriesFigure n={person.opens} of={{ recipient: person.id, kind: 'opened' }} />{' '}
            {person.opens === 1 ? 'open' : 'opens'}
          </>
        )}
        {person.lastOpen !== null && (
          <>
            , last <Moment at={person.lastOpen} />
          </>
        )}
        ;{' '}
        {person.refusals === 0 ? (
          'never refused'
        ) : (
          <span className="magenta">
            refused {person.refusals === 1 ? 'once' : `${String(person.refusals)} times`}
          </span>
        )}
        .
      </p>
      {person.byTheirLinks > 0 && (
        <p className="magenta">
          Somebody else was refused{' '}
          {person.byTheirLinks === 1 ? 'once' : `${String(person.byTheirLinks)} times`} by a link
          sent to {name}. It may have been forwarded.
        </p>
      )}
      {readsRecord && (
        <p>
          <Link href={`/ledger?recipient=${person.id}`}>Show in ledger</Link>
        </p>
      )}
      <hr />
      <KnownPanel person={person} now={now} />
      <AddressesPanel person={person} />
      <GroupsPanel person={person} />
      <hr />
      <h2>Documents</h2>
      {person.grants.length === 0 ? (
        <p className="quiet">Nothing.</p>
      ) : (
        <Table className="list flush fixed">
          <TableBody>
            {person.grants.map((grant) => (
              <HeldRow key={grant.id} grant={grant} person={person} now={now} changes={changes} />
            ))}
          </TableBody>
        </Table>
      )}
      {wider.length > 0 && (
        <Note>
          Has access through their domain:{' '}
          {wider.map((grant, index) => (
            <span key={grant.id}>
              {index > 0 && ', '}
              <Link href={`/dispatches/${grant.dispatchId}`}>{grant.documentTitle}</Link>
            </span>
          ))}
          . Blocking stops that too.
        </Note>
      )}
      {gives && (
        <GivePanel
          path={`/api/v1/people/${person.id}/lacking`}
          field="documents"
          ask="Give more documents…"
          title="Does not have"
          disabled={person.blocked}
          done={(given) => `${String(given)} ${given === 1 ? 'document' : 'documents'} given.`}
        />
      )}
      {changesAccess && (
        <>
          <div className="row">
            <RevokeScope
              scope={{ kind: 'person', recipient: person.id }}
              label="Revoke everything…"
              title={`Revoke everything ${name} holds?`}
              changes={changes}
            />
            {person.organisation !== '' && (
              <RevokeScope
                scope={{ kind: 'organisation', organisation: person.organisation }}
                label={`Revoke all of ${person.organisation}…`}
                title={`Revoke everything anybody at ${person.organisation} holds?`}
                changes={changes}
              />
            )}
          </div>
          <SaidLine changes={changes} />
        </>
      )}
      <AccessThenPanel key={person.id} of={{ recipient: person.id }} names="documents" />
      <ShutOut person={person} canOpen={canOpen} />
      <hr />
      <h2>Devices</h2>
      {person.devices.length === 0 ? (
        <p className="quiet">No device has proven this email address.</p>
      ) : (
        person.devices.map((device) => (
          <p key={device.id}>
            {device.label === '' ? 'A browser' : device.label},{' '}
            {device.kept ? 'remembered' : 'for one visit'}, since <Moment at={device.since} />
          </p>
        ))
      )}
    </div>
  );
}

/** One document they hold: what they may do, until when, and why. */
function HeldRow({
  grant,
  person,
  now,
  changes,
}: {
  readonly grant: GrantRow;
  readonly person: PersonDetail;
  readonly now: number;
  readonly changes: Changes;
}) {
  const [why, setWhy] = useState(false);
  const state = stateOf(grant, now);
  // Open by its window, and shut by a condition: that is what counts.
  const shut =
    state === 'live'
      ? (person.reach.find(({ document }) => document === grant.documentId)?.reason ?? null)
      : null;
  const { rights, prints, until } = underCeilings(grant);
  const tone =
    shut !== null
      ? 'magenta'
      : state === 'live'
        ? ''
        : state === 'not-yet'
          ? 'lamp'
          : state === 'expired'
            ? 'quiet'
            : 'magenta';
  return (
    <>
      <TableRow>
        <TableCell>
          <Link href={`/documents/${grant.documentId}`}>{grant.documentTitle}</Link>
          <br />
          <span className="quiet small">
            {rightsLine(rights, prints)}
            {grant.capped?.byCeiling === true && ', under a ceiling'}
          </span>
          <br />
          <ChipButton
            aria-expanded={why}
            aria-label={`Why: ${grant.documentTitle}`}
            onClick={() => {
              setWhy(!why);
            }}
          >
            Why?
          </ChipButton>
        </TableCell>
        <TableCell style={{ fontSize: 12 }} className={tone}>
          {shut === null ? stateWords[state] : refusalName(shut)}
          {until !== null && (
            <>
              <br />
              <Moment at={until} />
            </>
          )}
          {state === 'live' && grant.mayChange && (
            <>
              <br />
              <RevokeScope
                scope={{
                  kind: 'person-on-document',
                  recipient: person.id,
                  document: grant.documentId,
                }}
                label="Revoke…"
                title={`Revoke “${grant.documentTitle}” for ${person.name === '' ? person.address : person.name}?`}
                changes={changes}
              />
            </>
          )}
        </TableCell>
      </TableRow>
      {why && (
        <TableRow style={{ background: 'transparent' }}>
          <TableCell colSpan={2}>
            <WhyPanel recipient={person.id} document={grant.documentId} />
          </TableCell>
        </TableRow>
      )}
    </>
  );
}
