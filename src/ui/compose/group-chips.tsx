'use client';

import type { GroupRow } from '@/contracts/people';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';

/** Groups to address: whoever is in one now is added, and can be taken out again one by one. */
export function GroupChips({ groups, onAdd }: { readonly groups: readonly GroupRow[]; readonly onAdd: (addresses: readonly string[]) => void }) {
  const { busy, problem, attempt } = useAttempt();
  const add = (group: GroupRow) => attempt(async () => { onAdd((await call<{ readonly addresses: readonly string[] }>('GET', `/api/v1/groups/${group.id}/members`)).addresses); });
  return (
    <div className="row">
      {groups.map((group) => <button key={group.id} type="button" className="chip" disabled={busy || group.people === 0} onClick={() => void add(group)}>+ {group.name} <span className="figure">{group.people}</span></button>)}
      <span className="quiet">Adds whoever is in the group now; who joins it later is not sent this.</span>
      {problem !== null && <span role="alert" className="magenta">{problem}</span>}
    </div>
  );
}
