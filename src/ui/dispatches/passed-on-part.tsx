'use client';

import { useMemo, useState } from 'react';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { rightsLine } from '@/core/policy/rights-line';
import { passedOnTree, type TreeRow } from '@/ui/dispatches/passed-on-tree';
import { ConfirmRevoke } from '@/ui/grants/confirm-revoke';
import { personName, stateOf, stateTone, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { useChanges } from '@/ui/grants/use-changes';
import { ActsMenu } from '@/ui/shell/acts-menu';
import { SaidLine } from '@/ui/shell/said-line';

/** What recipients passed on, as a tree that can be revoked from any point down. */
export function PassedOnPart({
  grants,
  now,
}: {
  readonly grants: readonly GrantRow[];
  readonly now: number;
}) {
  const rows = useMemo(() => passedOnTree(grants), [grants]);
  const changes = useChanges();
  const [asked, setAsked] = useState<GrantRow | null>(null);
  if (rows.length === 0) return null;
  return (
    <section className="stack" aria-label="Passed on">
      <h2>Passed on</h2>
      <SaidLine changes={changes} />
      <Table className="list flush" aria-label="Passed on">
        <TableBody>
          {rows.map((row) => (
            <PassedRow
              key={row.grant.id}
              row={row}
              now={now}
              busy={changes.busy}
              onRevoke={() => {
                setAsked(row.grant);
              }}
              onReinstate={() => void changes.reinstate([row.grant])}
            />
          ))}
        </TableBody>
      </Table>
      <ConfirmRevoke
        open={asked !== null}
        busy={changes.busy}
        grants={asked === null ? [] : [asked]}
        onClose={() => {
          setAsked(null);
        }}
        onConfirm={(also, reason) => {
          if (asked !== null)
            void changes.revoke([asked], also, reason).then(() => {
              setAsked(null);
            });
        }}
      />
    </section>
  );
}

function PassedRow({
  row: { grant, depth, below },
  now,
  busy,
  onRevoke,
  onReinstate,
}: {
  readonly row: TreeRow;
  readonly now: number;
  readonly busy: boolean;
  readonly onRevoke: () => void;
  readonly onReinstate: () => void;
}) {
  const state = stateOf(grant, now);
  const { rights, prints } = underCeilings(grant);
  const name = personName(grant);
  return (
    <TableRow>
      <TableCell sx={{ paddingLeft: `${String(depth * 14)}px` }}>
        {depth > 0 && <span aria-hidden="true">↳ </span>}
        <b>{name}</b>
        <span className="under">
          {grant.documentTitle}: {rightsLine(rights, prints)},{' '}
          <span className={stateTone[state]}>{stateWords[state]}</span>
          {grant.passedOnBy !== null && `, passed on by ${grant.passedOnBy}`}
          {below > 0 && `, ${counted(below, 'grant')} below`}
        </span>
      </TableCell>
      <TableCell>
        {grant.mayChange && (
          <ActsMenu
            label={`Access of ${name} to ${grant.documentTitle}`}
            disabled={busy}
            items={[
              grant.revokedAt === null
                ? { label: below > 0 ? 'Revoke from here down…' : 'Revoke…', act: onRevoke }
                : { label: 'Reinstate', act: onReinstate },
            ]}
          />
        )}
      </TableCell>
    </TableRow>
  );
}
