'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/core/policy/rights-line';
import { ConfirmRevoke } from '@/ui/grants/confirm-revoke';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { whoLine } from '@/ui/words/addressee-words';
import { personName, stateOf, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { EntriesFigure } from '@/ui/words/entries-figure';

type Props = {
  readonly grants: readonly GrantRow[];
  readonly now: number;
  readonly showDocument: boolean;
  readonly selected: GrantId | null;
  readonly onSelect: (id: GrantId) => void;
};

/** Grants as a list: who may do what until when, with revoking and reinstating of those ticked. */
export function GrantsTable({ grants, now, showDocument, selected, onSelect }: Props) {
  const changes = useChanges();
  const [ticked, setTicked] = useState<ReadonlySet<GrantId>>(new Set());
  const [asking, setAsking] = useState(false);
  const chosen = grants.filter((grant) => ticked.has(grant.id));
  const live = chosen.filter((grant) => grant.revokedAt === null);
  const changeable = grants.filter((grant) => grant.mayChange);
  const revoked = chosen.filter((grant) => grant.revokedAt !== null);

  const clear = () => {
    setTicked(new Set());
    setAsking(false);
  };
  const tick = (id: GrantId, on: boolean) => {
    setTicked((before) => {
      const after = new Set(before);
      if (on) after.add(id);
      else after.delete(id);
      return after;
    });
  };

  return (
    <>
      <div className="row bar">
        <span className="quiet">
          {chosen.length === 0
            ? 'Select people to revoke or reinstate them together.'
            : `${String(chosen.length)} ticked`}
        </span>
        <span className="gap" />
        <SaidLine changes={changes} />
        {revoked.length > 0 && (
          <Button
            disabled={changes.busy}
            onClick={() => void changes.reinstate(revoked).then(clear)}
          >
            Reinstate {revoked.length}
          </Button>
        )}
        {live.length > 0 && (
          <Button
            color="error"
            disabled={changes.busy}
            onClick={() => {
              setAsking(true);
            }}
          >
            Revoke {live.length}…
          </Button>
        )}
      </div>
      <Table className="list">
        <TableHead>
          <TableRow>
            <TableCell>
              <Checkbox
                sx={{ p: 0 }}
                disabled={changeable.length === 0}
                checked={chosen.length > 0 && chosen.length === changeable.length}
                indeterminate={chosen.length > 0 && chosen.length < changeable.length}
                onChange={(_event, on) => {
                  setTicked(new Set(on ? changeable.map((grant) => grant.id) : []));
                }}
                slotProps={{ input: { 'aria-label': 'Select all' } }}
              />
            </TableCell>
            <TableCell>Person</TableCell>
            {showDocument && <TableCell>Document</TableCell>}
            <TableCell>May</TableCell>
            <TableCell>Until</TableCell>
            <TableCell>State</TableCell>
            <TableCell className="number">Opens</TableCell>
            <TableCell className="number">Refused</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {grants.map((grant) => {
            const state = stateOf(grant, now);
            const is = underCeilings(grant);
            return (
              <TableRow key={grant.id} aria-selected={grant.id === selected}>
                <TableCell>
                  <Checkbox
                    sx={{ p: 0 }}
                    disabled={!grant.mayChange}
                    checked={ticked.has(grant.id)}
                    onChange={(_event, on) => {
                      tick(grant.id, on);
                    }}
                    slotProps={{
                      input: {
                        'aria-label': `Select ${personName(grant)}, ${grant.documentTitle}`,
                      },
                    }}
                  />
                </TableCell>
                <TableCell>
                  <button
                    type="button"
                    className="row-button"
                    onClick={() => {
                      onSelect(grant.id);
                    }}
                  >
                    {personName(grant)}
                  </button>
                  <br />
                  <span className="quiet small">{whoLine(grant)}</span>
                </TableCell>
                {showDocument && <TableCell>{grant.documentTitle}</TableCell>}
                <TableCell>
                  {rightsLine(is.rights, is.prints)}
                  {grant.capped?.byCeiling === true && (
                    <span className="quiet small">
                      <br />
                      under a ceiling
                    </span>
                  )}
                </TableCell>
                <TableCell>
                  {is.until === null ? (
                    <span className="lamp">no end</span>
                  ) : (
                    <Moment at={is.until} />
                  )}
                </TableCell>
                <TableCell
                  className={
                    state === 'live'
                      ? ''
                      : state === 'not-yet'
                        ? 'lamp'
                        : state === 'expired'
                          ? 'quiet'
                          : 'magenta'
                  }
                >
                  {stateWords[state]}
                </TableCell>
                <TableCell className="number">
                  <EntriesFigure
                    n={grant.opens}
                    of={{
                      document: grant.documentId,
                      recipient: grant.recipientId,
                      dispatch: grant.dispatchId,
                      kind: 'opened',
                    }}
                  />
                </TableCell>
                <TableCell className="number">
                  <EntriesFigure
                    n={grant.refusals}
                    of={{
                      document: grant.documentId,
                      recipient: grant.recipientId,
                      kind: 'refused',
                    }}
                  />
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      <ConfirmRevoke
        open={asking}
        busy={changes.busy}
        grants={live}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(also, reason) => void changes.revoke(live, also, reason).then(clear)}
      />
    </>
  );
}
