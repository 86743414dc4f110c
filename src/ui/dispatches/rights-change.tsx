'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { RightsFields, type RightsValue } from '@/ui/terms-fields/rights-fields';
import type { Changes } from '@/ui/grants/use-changes';
import { rightsLine } from '@/core/policy/rights-line';

/** Gives the picked grants other rights, all the same, with what they had shown beside. */
export function RightsChange({
  grants,
  changes,
  onDone,
}: {
  readonly grants: readonly GrantRow[];
  readonly changes: Changes;
  readonly onDone: () => void;
}) {
  const [first] = grants;
  const [value, setValue] = useState<RightsValue>({
    rights: first?.rights ?? ['read'],
    prints: first?.prints ?? null,
  });
  const before = [...new Set(grants.map((grant) => rightsLine(grant.rights, grant.prints)))];
  const after = rightsLine(value.rights, value.prints);
  const same = before.length === 1 && before[0] === after;
  return (
    <div className="stack lines-bar" role="group" aria-label="Change rights">
      <RightsFields value={value} onChange={setValue} />
      <div className="row">
        <span role="status">
          {grants.length === 1 ? 'This grant' : `${String(grants.length)} grants`}:{' '}
          {before.length === 1 ? before[0] : 'different rights'} → <b>{after}</b>. This takes effect
          on the next page that is shown. Ends stay as they are.
        </span>
        <Button
          variant="contained"
          disabled={changes.busy || same}
          onClick={() => void changes.setRights(grants, value).then(onDone)}
        >
          Change {grants.length === 1 ? 'it' : `all ${String(grants.length)}`}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </div>
  );
}
