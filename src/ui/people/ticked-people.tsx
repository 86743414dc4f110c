'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GroupRow } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import type { GroupId, RecipientId } from '@/core/base/ids';
import { GroupChoice, type ChosenGroup } from '@/ui/people/group-choice';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

/** Puts the people who are ticked into a group, or takes them out of the one that is shown. */
export function TickedPeople({
  ids,
  groups,
  shown,
  busy,
  attempt,
  onDone,
}: {
  readonly ids: readonly RecipientId[];
  readonly groups: readonly GroupRow[];
  /** The group that the list is narrowed to. */
  readonly shown: GroupId | undefined;
  readonly busy: boolean;
  readonly attempt: Attempt['attempt'];
  readonly onDone: () => void;
}) {
  const [group, setGroup] = useState<ChosenGroup>(null);
  const within = groups.find(({ id }) => id === shown);
  const act = async (work: () => Promise<unknown>, words: string) => {
    if (await attempt(work, words)) onDone();
  };
  const add = async () => {
    if (group === null) return;
    const id =
      'id' in group
        ? group.id
        : (await api('POST /api/v1/groups', { id: null, name: group.name })).id;
    await api('POST /api/v1/groups/:id/members', { id, add: ids });
  };
  const people = counted(ids.length, 'person', 'people');
  return (
    <div className="row one-row top above-8" role="group" aria-label="Selected people">
      <span className="quiet nowrap">{people} selected</span>
      <GroupChoice groups={groups} value={group} onChange={setGroup} />
      <Button
        className="nowrap"
        disabled={busy || group === null}
        onClick={() =>
          void act(add, `${people} added to the group, with what was sent to the group itself.`)
        }
      >
        Add to group
      </Button>
      {within !== undefined && (
        <Button
          className="nowrap"
          disabled={busy}
          onClick={() =>
            void act(
              () => api('POST /api/v1/groups/:id/members', { id: within.id, remove: ids }),
              `${people} removed from “${within.name}”. They lose what was sent to the group itself.`,
            )
          }
        >
          Remove from “{within.name}”
        </Button>
      )}
      <Button variant="text" className="nowrap" onClick={onDone}>
        Cancel
      </Button>
    </div>
  );
}
