'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { ReadsBeyond } from '@/ui/grants/reads-on-note';
import { useChanges, type Changes } from '@/ui/grants/use-changes';
import { SaidLine } from '@/ui/shell/said-line';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { MomentField } from '@/ui/time/moment-field';

/** What can be changed of one grant: its end, and its conditions; with what was changed and its undo. */
export function GrantChanges({ grant }: { readonly grant: GrantRow }) {
  const changes = useChanges();
  const version = `${grant.id} ${String(grant.revision)}`;
  return (
    <>
      <ChangeEnd key={`end ${version}`} grant={grant} changes={changes} />
      <ChangeConditions key={`conditions ${version}`} grant={grant} changes={changes} />
      <SaidLine changes={changes} />
    </>
  );
}

type Props = { readonly grant: GrantRow; readonly changes: Changes };

function ChangeConditions({ grant, changes }: Props) {
  const [conditions, setConditions] = useState(grant.conditions ?? undefined);
  const changed = JSON.stringify(conditions ?? null) !== JSON.stringify(grant.conditions);
  return (
    <div className="stack">
      <ConditionsFields value={conditions} onChange={setConditions} />
      {changed && (
        <div className="row">
          <Button
            disabled={changes.busy}
            onClick={() => void changes.setConditions([grant], conditions ?? null)}
          >
            Change the conditions
          </Button>
        </div>
      )}
    </div>
  );
}

function ChangeEnd({ grant, changes }: Props) {
  const [until, setUntil] = useState(grant.until);
  return (
    <div className="stack">
      <h2>End</h2>
      <MomentField label="Access ends" value={until} onChange={setUntil} none="No end" />
      <div className="row">
        <Button
          disabled={until === grant.until || changes.busy}
          onClick={() => void changes.moveEnds([grant], until)}
        >
          Change the end
        </Button>
        <span className="quiet">Takes effect at once. Nothing is mailed.</span>
      </div>
      {until !== grant.until && <ReadsBeyond grants={[grant]} end={until} />}
    </div>
  );
}
