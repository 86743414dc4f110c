'use client';

import Link from 'next/link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import type { GrantRow } from '@/contracts/dispatch';
import type { PersonDetail } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import { StillReadablePanel } from '@/ui/still-readable/still-readable-panel';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import { GivePanel } from '@/ui/give/give-panel';
import { stateOf } from '@/ui/grants/grant-words';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { useChanges, type Changes } from '@/ui/grants/use-changes';
import { api } from '@/ui/http/api';
import { AddressesPanel } from '@/ui/people/addresses-panel';
import { GroupsPanel } from '@/ui/people/groups-panel';
import { HeldRow } from '@/ui/people/held-row';
import { KnownPanel } from '@/ui/people/known-panel';
import { PersonDevices, PersonPasskeys } from '@/ui/people/person-devices';
import { PersonHead } from '@/ui/people/person-head';
import { ShutOut } from '@/ui/people/shut-out';
import { Note } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { SaidLine } from '@/ui/shell/said-line';

const LACKING = 'GET /api/v1/people/:id/lacking';

/** One person: all they hold, what they did with it, and the ways to end it. */
export function PersonPanel({
  person,
  now,
}: {
  readonly person: PersonDetail;
  readonly now: number;
}) {
  const changes = useChanges();
  const gives = useHolds('dispatch');
  const canOpen = person.reach.filter(({ reason }) => reason === null).length;
  return (
    <div className="stack">
      <PersonHead person={person} canOpen={canOpen} />
      <hr />
      <KnownPanel person={person} now={now} />
      <AddressesPanel person={person} />
      <GroupsPanel person={person} />
      <hr />
      <h2>Documents</h2>
      {person.grants.length === 0 ? (
        <p className="quiet">Nothing.</p>
      ) : (
        <Table className="list flush fixed" aria-label="Documents they hold">
          <TableBody>
            {person.grants.map((grant) => (
              <HeldRow key={grant.id} grant={grant} person={person} now={now} changes={changes} />
            ))}
          </TableBody>
        </Table>
      )}
      <Wider grants={person.wider.filter((grant) => stateOf(grant, now) === 'live')} />
      {gives && <GiveMore person={person} />}
      <RevokeAll person={person} changes={changes} />
      <AccessThenPanel key={person.id} of={{ recipient: person.id }} names="documents" />
      <ShutOut person={person} canOpen={canOpen} />
      <hr />
      <h2>Devices</h2>
      <StillReadablePanel key={`${person.id} readable`} of={{ person: person.id }} />
      <PersonDevices person={person} />
      <h3>Passkeys</h3>
      <PersonPasskeys person={person} />
    </div>
  );
}

/** What lets them in along with everybody at their domain. */
function Wider({ grants }: { readonly grants: readonly GrantRow[] }) {
  if (grants.length === 0) return null;
  return (
    <Note>
      Has access through their domain:{' '}
      {grants.map((grant, index) => (
        <span key={grant.id}>
          {index > 0 && ', '}
          <Link href={`/dispatches/${grant.dispatchId}`}>{grant.documentTitle}</Link>
        </span>
      ))}
      . Blocking stops that too.
    </Note>
  );
}

function GiveMore({ person: { id, blocked } }: { readonly person: PersonDetail }) {
  return (
    <GivePanel<typeof LACKING, DocumentId>
      from={LACKING}
      takes={(q) => ({ id, q })}
      give={({ chosen, ...terms }) =>
        api('POST /api/v1/people/:id/lacking', { id, documents: chosen, ...terms })
      }
      ask="Give more documents…"
      title="Does not have"
      disabled={blocked}
      done={(given) => `${counted(given, 'document')} given.`}
    />
  );
}

function RevokeAll({
  person: { id, name, address, organisation },
  changes,
}: {
  readonly person: PersonDetail;
  readonly changes: Changes;
}) {
  const changesAccess = useHolds('change-access');
  if (!changesAccess) return null;
  return (
    <>
      <div className="row">
        <RevokeScope
          scope={{ kind: 'person', recipient: id }}
          label="Revoke everything…"
          title={`Revoke everything ${name === '' ? address : name} holds?`}
          changes={changes}
        />
        {organisation !== '' && (
          <RevokeScope
            scope={{ kind: 'organisation', organisation }}
            label={`Revoke all of ${organisation}…`}
            title={`Revoke everything anybody at ${organisation} holds?`}
            changes={changes}
          />
        )}
      </div>
      <SaidLine changes={changes} />
    </>
  );
}
