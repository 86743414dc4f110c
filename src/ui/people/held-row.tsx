'use client';

import { useState } from 'react';
import Link from 'next/link';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { GrantRow } from '@/contracts/dispatch';
import type { PersonDetail } from '@/contracts/people';
import { refusalName } from '@/core/policy/refusal-names';
import { rightsLine } from '@/core/policy/rights-line';
import { stateOf, stateTone, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import type { Changes } from '@/ui/grants/use-changes';
import { ChipButton } from '@/ui/shell/chips';
import { Moment } from '@/ui/time/moment';
import { ReadingRecord } from '@/ui/grants/reading-record';
import { WhyPanel } from '@/ui/why/why-panel';

type Props = {
  readonly grant: GrantRow;
  readonly person: PersonDetail;
  readonly now: number;
  readonly changes: Changes;
};

/** One document they hold: what they may do, until when, and why. */
export function HeldRow({ grant, person, now, changes }: Props) {
  const [why, setWhy] = useState(false);
  const { rights, prints } = underCeilings(grant);
  return (
    <>
      <TableRow hover>
        <TableCell>
          <Link href={`/documents/${grant.documentId}`}>{grant.documentTitle}</Link>
          <span className="under">
            {rightsLine(rights, prints)}
            {grant.capped?.byCeiling === true && ', under a ceiling'}
          </span>
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
        <TableCell>
          <HeldState grant={grant} person={person} now={now} changes={changes} />
        </TableCell>
      </TableRow>
      {why && (
        <TableRow>
          <TableCell colSpan={2}>
            <WhyPanel recipient={person.id} document={grant.documentId} />
            {grant.opens > 0 && <ReadingRecord document={grant.documentId} recipient={person.id} />}
          </TableCell>
        </TableRow>
      )}
    </>
  );
}

/** Whether it can be opened, until when, and its revoking. */
function HeldState({ grant, person, now, changes }: Props) {
  const state = stateOf(grant, now);
  const isLive = state === 'live';
  // Open by its window, and shut by a condition: that is what counts.
  const held = person.reach.find(({ document }) => document === grant.documentId);
  const shut = isLive ? (held?.reason ?? null) : null;
  const { until } = underCeilings(grant);
  const name = person.name === '' ? person.address : person.name;
  return (
    <>
      <div className={shut === null ? stateTone[state] : 'magenta'}>
        {shut === null ? stateWords[state] : refusalName(shut)}
        {until !== null && (
          <>
            <br />
            <Moment at={until} />
          </>
        )}
      </div>
      {isLive && grant.mayChange && (
        <RevokeScope
          scope={{
            kind: 'person-on-document',
            recipient: person.id,
            document: grant.documentId,
          }}
          label="Revoke…"
          title={`Revoke “${grant.documentTitle}” for ${name}?`}
          changes={changes}
        />
      )}
    </>
  );
}
