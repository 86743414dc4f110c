'use client';

import type { GroupRow } from '@/contracts/people';
import { ChipButton } from '@/ui/shell/chips';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import type { Recipients } from '@/ui/recipients/use-recipients';

/** Groups to address: as the people in one now, who can be taken out again one by one, or live, as the group. */
export function GroupChips({
  groups,
  recipients,
}: {
  readonly groups: readonly GroupRow[];
  readonly recipients: Recipients;
}) {
  const { busy, problem, attempt } = useAttempt();
  const add = (group: GroupRow) =>
    attempt(async () => {
      const { addresses } = await api('GET /api/v1/groups/:id/members', { id: group.id });
      recipients.setText(
        [recipients.text.trim(), ...addresses].filter((each) => each !== '').join('\n'),
      );
    });
  const toggle = ({ id }: GroupRow) => {
    recipients.setGroups(
      recipients.groups.includes(id)
        ? recipients.groups.filter((each) => each !== id)
        : [...recipients.groups, id],
    );
  };
  return (
    <div className="stack tight">
      <div className="row" role="group" aria-label="Groups, current members only">
        {groups.map((group) => (
          <ChipButton
            key={group.id}
            disabled={busy || group.people === 0}
            onClick={() => void add(group)}
          >
            + {group.name} <span className="figure">{group.people}</span>
          </ChipButton>
        ))}
        <span className="quiet">the people in it now; later members get nothing</span>
      </div>
      <div className="row" role="group" aria-label="Groups that follow membership">
        {groups.map((group) => (
          <ChipButton
            key={group.id}
            aria-pressed={recipients.groups.includes(group.id)}
            onClick={() => {
              toggle(group);
            }}
          >
            {group.name}, follows membership
          </ChipButton>
        ))}
        <span className="quiet">people who join later get access, people who leave lose it</span>
      </div>
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
    </div>
  );
}
