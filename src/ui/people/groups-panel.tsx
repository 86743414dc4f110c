'use client';

import type { GroupId } from '@/core/base/ids';
import type { PersonDetail } from '@/contracts/people';
import { ChipButton } from '@/ui/shell/chips';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

/** The groups somebody is in; one is entered or left by its chip, and a new one is made by naming it. */
export function GroupsPanel({ person }: { readonly person: PersonDetail }) {
  const mayChange = useHolds('dispatch');
  const { busy, said, attempt } = useAttempt();
  const members = (
    id: GroupId,
    change: { readonly add?: readonly string[]; readonly remove?: readonly string[] },
  ) => call('POST', `/api/v1/groups/${id}/members`, change);
  const toggle = (id: GroupId, name: string, isIn: boolean) =>
    attempt(
      () => members(id, isIn ? { remove: [person.id] } : { add: [person.id] }),
      isIn
        ? `Removed from “${name}”. They lose what was sent to the group itself.`
        : `Added to “${name}”, with what was sent to the group itself.`,
    );
  const make = (name: string) =>
    attempt(async () => {
      const { id } = await call<{ readonly id: GroupId }>('POST', '/api/v1/groups', {
        id: null,
        name,
      });
      await members(id, { add: [person.id] });
    }, `“${name}” is created, with this person in it.`);
  if (!mayChange && person.inGroups.length === 0) return null;
  return (
    <section className="stack" aria-label="Groups">
      <h2>Groups</h2>
      <div className="row">
        {person.groups
          .filter(({ id }) => mayChange || person.inGroups.includes(id))
          .map(({ id, name, people }) => (
            <ChipButton
              key={id}
              disabled={busy || !mayChange}
              aria-pressed={person.inGroups.includes(id)}
              onClick={() => void toggle(id, name, person.inGroups.includes(id))}
            >
              {name} <span className="figure">{people}</span>
            </ChipButton>
          ))}
        {mayChange && (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              const form = event.currentTarget;
              const name = new FormData(form).get('name');
              if (typeof name === 'string' && name.trim() !== '')
                void make(name.trim()).then((made) => {
                  if (made) form.reset();
                });
            }}
          >
            <input
              className="plain"
              name="name"
              maxLength={80}
              aria-label="Name of a new group"
              placeholder="a new group"
              style={{ width: 130 }}
            />
          </form>
        )}
      </div>
      <Notice said={said} />
    </section>
  );
}
