'use client';

import Button from '@mui/material/Button';
import { putGroupInput, type PersonDetail } from '@/contracts/people';
import type { GroupId } from '@/core/base/ids';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { ChipButton } from '@/ui/shell/chips';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

/** The groups somebody is in; one is entered or left by its chip, and a new one is made by naming it. */
export function GroupsPanel({ person }: { readonly person: PersonDetail }) {
  const mayChange = useHolds('dispatch');
  const { busy, said, attempt } = useAttempt();
  const toggle = (id: GroupId, name: string, isIn: boolean) =>
    attempt(
      () =>
        api('POST /api/v1/groups/:id/members', {
          id,
          ...(isIn ? { remove: [person.id] } : { add: [person.id] }),
        }),
      isIn
        ? `Removed from “${name}”. They lose what was sent to the group itself.`
        : `Added to “${name}”, with what was sent to the group itself.`,
    );
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
      </div>
      {mayChange && <NewGroup person={person} attempt={attempt} />}
      <Notice said={said} />
    </section>
  );
}

function NewGroup({
  person,
  attempt,
}: {
  readonly person: PersonDetail;
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: putGroupInput,
    start: { id: null, name: '' },
    send: async (input) => {
      const { id } = await api('POST /api/v1/groups', input);
      await api('POST /api/v1/groups/:id/members', { id, add: [person.id] });
      return input.name;
    },
    done: (name) => `“${name}” is created, with this person in it.`,
    onDone: () => {
      form.reset();
    },
    attempt,
  });
  return (
    <form className="row one-row top above-6" noValidate onSubmit={onSubmit}>
      <FormText control={form.control} name="name" label="Name of a new group" />
      <Button type="submit" variant="text" className="nowrap" disabled={busy}>
        Create group
      </Button>
    </form>
  );
}
