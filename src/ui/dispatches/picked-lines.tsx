'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { momentText } from '@/core/base/moment-text';
import { RightsChange } from '@/ui/dispatches/rights-change';
import { ConfirmRevoke } from '@/ui/grants/confirm-revoke';
import { ReadsBeyond } from '@/ui/grants/reads-on-note';
import { useChanges, type Changes } from '@/ui/grants/use-changes';
import { SaidLine } from '@/ui/shell/said-line';
import { useZone } from '@/ui/time/use-zone';

/** What can be done with the lines that are picked, or the move of an end that waits for a yes. */
export function PickedLines({
  grants,
  people,
  proposed,
  onLeave,
}: {
  readonly grants: readonly GrantRow[];
  readonly people: number;
  /** Where an end was dragged to; `null`: none; undefined: nothing was dragged. */
  readonly proposed: number | null | undefined;
  readonly onLeave: () => void;
}) {
  const changes = useChanges();
  const standing = grants.filter((grant) => grant.revokedAt === null);
  return (
    <>
      {proposed === undefined ? (
        <PickedActs
          key={grants.map(({ id }) => id).join()}
          grants={grants}
          people={people}
          changes={changes}
        />
      ) : (
        <MovedEnd grants={standing} to={proposed} changes={changes} onLeave={onLeave} />
      )}
      <SaidLine changes={changes} />
    </>
  );
}

function PickedActs({
  grants,
  people,
  changes,
}: {
  readonly grants: readonly GrantRow[];
  readonly people: number;
  readonly changes: Changes;
}) {
  const [asking, setAsking] = useState(false);
  const [rights, setRights] = useState(false);
  const mayChange = grants.length > 0 && grants.every((grant) => grant.mayChange);
  const standing = mayChange ? grants.filter((grant) => grant.revokedAt === null) : [];
  const revoked = mayChange ? grants.filter((grant) => grant.revokedAt !== null) : [];
  return (
    <>
      <div className="row lines-bar">
        <span className="quiet">
          {people === 0
            ? 'Select a line. Drag its end to move it; hold Shift to select several.'
            : `${String(people)} selected`}
        </span>
        {standing.length > 0 && (
          <>
            <Button
              disabled={changes.busy}
              aria-expanded={rights}
              onClick={() => {
                setRights(!rights);
              }}
            >
              Change rights
            </Button>
            <Button
              color="error"
              disabled={changes.busy}
              onClick={() => {
                setAsking(true);
              }}
            >
              Revoke {standing.length}…
            </Button>
          </>
        )}
        {revoked.length > 0 && (
          <Button disabled={changes.busy} onClick={() => void changes.reinstate(revoked)}>
            Reinstate {revoked.length}
          </Button>
        )}
      </div>
      {rights && standing.length > 0 && (
        <RightsChange
          key={standing.map((grant) => grant.id).join()}
          grants={standing}
          changes={changes}
          onDone={() => {
            setRights(false);
          }}
        />
      )}
      <ConfirmRevoke
        open={asking}
        busy={changes.busy}
        grants={standing}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(also, reason) =>
          void changes.revoke(standing, also, reason).then(() => {
            setAsking(false);
          })
        }
      />
    </>
  );
}

/** An end that was dragged, before and after, to be moved or left. */
function MovedEnd({
  grants,
  to,
  changes,
  onLeave,
}: {
  readonly grants: readonly GrantRow[];
  readonly to: number | null;
  readonly changes: Changes;
  readonly onLeave: () => void;
}) {
  const zone = useZone();
  const textOf = (moment: number | null) => (moment === null ? 'no end' : momentText(moment, zone));
  const [first = null, ...others] = new Set(grants.map((grant) => grant.until));
  const isOne = grants.length === 1;
  return (
    <div className="row lines-bar">
      <span role="status">
        End of {isOne ? 'this grant' : counted(grants.length, 'grant')}:{' '}
        <span className="figure">{others.length === 0 ? textOf(first) : 'different ends'}</span> →{' '}
        <b className="figure">{textOf(to)}</b>
      </span>
      <Button
        variant="contained"
        disabled={changes.busy || grants.length === 0}
        onClick={() => void changes.moveEnds(grants, to).then(onLeave)}
      >
        Move {isOne ? 'the end' : counted(grants.length, 'end')}
      </Button>
      <Button onClick={onLeave}>Cancel</Button>
      <ReadsBeyond grants={grants} end={to} />
    </div>
  );
}
