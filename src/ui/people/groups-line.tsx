'use client';

import Button from '@mui/material/Button';
import type { GroupRow, ListPeopleInput } from '@/contracts/people';
import { ChipLink } from '@/ui/shell/chips';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { useHolds } from '@/ui/shell/permissions';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { addressWith } from '@/ui/tables/use-address';

/** The groups, each a filter of the list; the chosen one can be done away with. */
export function GroupsLine({
  groups,
  filter,
}: {
  readonly groups: readonly GroupRow[];
  readonly filter: ListPeopleInput;
}) {
  const mayChange = useHolds('dispatch');
  const { busy, problem, attempt } = useAttempt();
  const changes = useChanges();
  const chosen = groups.find(({ id }) => id === filter.group);
  return (
    <div className="row above-8">
      <span className="quiet">Groups</span>
      {groups.map(({ id, name, people }) => (
        <ChipLink
          key={id}
          aria-current={id === filter.group ? 'true' : undefined}
          href={addressWith('/people', { ...filter, group: id === filter.group ? undefined : id })}
        >
          {name} <span className="figure">{people}</span>
          {id === filter.group && ' ✕'}
        </ChipLink>
      ))}
      {chosen !== undefined && mayChange && (
        <Button
          variant="text"
          disabled={busy}
          onClick={() => {
            void attempt(() => api('DELETE /api/v1/groups/:id', { id: chosen.id })).then((done) => {
              if (done) window.location.assign('/people');
            });
          }}
        >
          Remove group
        </Button>
      )}
      {chosen !== undefined && (
        <span className="quiet">
          {chosen.live === 0
            ? 'Nothing was sent to the group itself. '
            : `${String(chosen.live)} ${chosen.live === 1 ? 'dispatch is' : 'dispatches are'} for ` +
              'it as such: who joins has them, who leaves loses them. '}
          If you remove it, its people keep what they have.
        </span>
      )}
      {chosen !== undefined && chosen.live > 0 && (
        <>
          <RevokeScope
            scope={{ kind: 'group', group: chosen.id }}
            label="Revoke access of the group…"
            title={`Revoke everything that was sent to “${chosen.name}” as a group?`}
            changes={changes}
          />
          <SaidLine changes={changes} />
        </>
      )}
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
    </div>
  );
}
