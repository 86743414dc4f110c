'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { leftInput } from '@/contracts/access';
import type { PersonDetail } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';

type Props = { readonly person: PersonDetail; readonly canOpen: number };

/** What shutting somebody out does not end at once. */
function ReadsOnLine({ until }: { readonly until: number | null }) {
  if (until === null) return null;
  return (
    <p className="lamp">
      A device of theirs reads on without asking until <Moment at={until} /> at the latest.
    </p>
  );
}

/** Stopping a person whatever they hold: for now, or because they have left, with the person who takes over. */
export function ShutOut({ person, canOpen }: Props) {
  const blocks = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  const [leaving, setLeaving] = useState(false);
  const { id, blocked, leftAt } = person;
  if (!blocks) return leftAt === null ? null : <Left at={leftAt} />;
  const block = () =>
    attempt(() => api('POST /api/v1/people/:id/block', { id, blocked: !blocked }));
  return (
    <section className="stack" aria-label="Shut out">
      {leftAt !== null && <Left at={leftAt} />}
      <p className="quiet">
        {blocked
          ? 'Their access is as it was before.'
          : 'A blocked person can open nothing, whatever they are given, until they are unblocked.'}
      </p>
      <ReadsOnLine until={person.readsOn} />
      {!leaving && (
        <div className="row">
          <Button
            color={blocked ? 'primary' : 'error'}
            disabled={busy}
            onClick={() => void block()}
          >
            {blockWords(person)}
          </Button>
          {leftAt === null && (
            <Button
              color="error"
              disabled={busy}
              onClick={() => {
                setLeaving(true);
              }}
            >
              Has left…
            </Button>
          )}
        </div>
      )}
      {leaving && (
        <HasLeftForm
          person={person}
          canOpen={canOpen}
          attempt={attempt}
          onClose={() => {
            setLeaving(false);
          }}
        />
      )}
      <Notice said={said} />
    </section>
  );
}

function blockWords({ blocked, leftAt }: PersonDetail): string {
  if (!blocked) return 'Block';
  return leftAt === null ? 'Unblock' : 'They are back';
}

function HasLeftForm({
  person,
  canOpen,
  attempt,
  onClose,
}: Props & { readonly attempt: Attempt['attempt']; readonly onClose: () => void }) {
  const { id, name, address, organisation, inGroups } = person;
  const { form, busy, onSubmit } = useContractForm({
    schema: leftInput,
    start: { id, successor: '' },
    send: async (input) => ({
      ...(await api('POST /api/v1/people/:id/left', input)),
      successor: input.successor,
    }),
    done: ({ given, groups, successor }) =>
      (groups > 0 ? `Shut out, and removed from ${counted(groups, 'group')}.` : 'Shut out.') +
      (given > 0 ? ` ${successor ?? ''} was given ${counted(given, 'document')}.` : ''),
    onDone: onClose,
    attempt,
  });
  const successor = form.watch('successor');
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <p>
        <b>
          {name === '' ? address : name} has left{organisation === '' ? '' : ` ${organisation}`}.
        </b>{' '}
        They lose access to {counted(canOpen, 'document')} at once, with all their email addresses,
        and are removed from {counted(inGroups.length, 'group')}.
      </p>
      <FormText
        control={form.control}
        name="successor"
        label="Successor"
        type="email"
        hint={
          successor === ''
            ? 'Empty: nobody'
            : 'Gets what they could still open, on the same terms, with links by mail'
        }
      />
      <div className="row">
        <Button type="submit" variant="contained" color="error" disabled={busy}>
          Shut them out
        </Button>
        <Button variant="text" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

function Left({ at }: { readonly at: number }) {
  return (
    <p className="magenta">
      Marked as left on <Moment at={at} />.
    </p>
  );
}
