'use client';

import { useMemo, useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { ConfirmRevoke } from '@/ui/grants/confirm-revoke';
import { grantColumns } from '@/ui/grants/grant-columns';
import { personName } from '@/ui/grants/grant-words';
import { useChanges } from '@/ui/grants/use-changes';
import { SaidLine } from '@/ui/shell/said-line';
import { DataTable } from '@/ui/tables/data-table';
import { tickColumn, useTicks } from '@/ui/tables/ticks';

type Props = {
  readonly grants: readonly GrantRow[];
  readonly now: number;
  readonly showDocument: boolean;
  readonly selected: GrantId | null;
  readonly onSelect: (id: GrantId) => void;
};

/** Grants as a list: who may do what until when, with revoking and reinstating of those ticked. */
export function GrantsTable({ grants, now, showDocument, selected, onSelect }: Props) {
  const ticks = useTicks<GrantId>();
  const columns = useMemo(
    () => [
      tickColumn<GrantRow, GrantId>({
        rows: grants,
        ticks,
        idOf: ({ id }) => id,
        nameOf: (grant) => `${personName(grant)}, ${grant.documentTitle}`,
        may: ({ mayChange }) => mayChange,
        all: 'Select all',
      }),
      ...grantColumns(now, showDocument, onSelect),
    ],
    [grants, ticks, now, showDocument, onSelect],
  );
  return (
    <>
      <TickedActs grants={grants.filter(({ id }) => ticks.ticked.has(id))} onDone={ticks.clear} />
      <DataTable
        id={showDocument ? 'dispatch-grants' : 'document-grants'}
        label="Access"
        columns={columns}
        rows={grants}
        keyOf={({ id }) => id}
        isSelected={({ id }) => id === selected}
      />
    </>
  );
}

/** What can be done with the grants that are ticked. */
function TickedActs({
  grants,
  onDone,
}: {
  readonly grants: readonly GrantRow[];
  readonly onDone: () => void;
}) {
  const changes = useChanges();
  const [asking, setAsking] = useState(false);
  const live = grants.filter((grant) => grant.revokedAt === null);
  const revoked = grants.filter((grant) => grant.revokedAt !== null);
  const done = () => {
    setAsking(false);
    onDone();
  };
  return (
    <div className="row acts-bar">
      <span className="quiet">
        {grants.length === 0
          ? 'Select people to revoke or reinstate them together.'
          : `${String(grants.length)} selected`}
      </span>
      <span className="gap" />
      <SaidLine changes={changes} />
      {revoked.length > 0 && (
        <Button disabled={changes.busy} onClick={() => void changes.reinstate(revoked).then(done)}>
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
      <ConfirmRevoke
        open={asking}
        busy={changes.busy}
        grants={live}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(also, reason) => void changes.revoke(live, also, reason).then(done)}
      />
    </div>
  );
}
