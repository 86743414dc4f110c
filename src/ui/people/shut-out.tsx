'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { HasLeft } from '@/contracts/access';
import type { PersonDetail } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';

/** Stopping a person whatever they hold: for now, or because they have left, with whoever takes over. */
export function ShutOut({
  person,
  canOpen,
}: {
  readonly person: PersonDetail;
  readonly canOpen: number;
}) {
  const blocks = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  const [leaving, setLeaving] = useState(false);
  const [successor, setSuccessor] = useState('');
  if (!blocks) return person.leftAt === null ? null : <Left at={person.leftAt} />;
  const block = () =>
    attempt(() => call('POST', `/api/v1/people/${person.id}/block`, { blocked: !person.blocked }));
  const leave = () =>
    attempt(
      () => call<HasLeft>('POST', `/api/v1/people/${person.id}/left`, { successor }),
      ({ given, groups }) =>
        (groups > 0 ? `Shut out, and removed from ${counted(groups, 'group')}.` : 'Shut out.') +
        (given > 0 ? ` ${successor} was given ${counted(given, 'document')}.` : ''),
    ).then((done) => {
      if (done) setLeaving(false);
    });
  return (
    <section className="stack" aria-label="Shut out">
      {person.leftAt !== null && <Left at={person.leftAt} />}
      <p className="quiet">
        {person.blocked
          ? 'Their access is as it was before.'
          : 'A blocked person can open nothing, whatever they are given, until they are unblocked.'}
      </p>
      {!leaving && (
        <div className="row">
          <Button
            color={person.blocked ? 'primary' : 'error'}
            disabled={busy}
            onClick={() => void block()}
          >
            {person.blocked ? (person.leftAt === null ? 'Unblock' : 'They are back') : 'Block'}
          </Button>
          {person.leftAt === null && (
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
        <form
          className="stack loose"
          onSubmit={(event) => {
            event.preventDefault();
            void leave();
          }}
        >
          <p>
            <b>
              {person.name === '' ? person.address : person.name} has left
              {person.organisation === '' ? '' : ` ${person.organisation}`}.
            </b>{' '}
            They lose access to {canOpen} {canOpen === 1 ? 'document' : 'documents'} at once, with
            all their email addresses, and are removed from {person.inGroups.length}{' '}
            {person.inGroups.length === 1 ? 'group' : 'groups'}.
          </p>
          <TextField
            label="Successor"
            type="email"
            value={successor}
            onChange={(event) => {
              setSuccessor(event.target.value);
            }}
            helperText={
              successor === ''
                ? 'Empty: nobody'
                : 'Gets what they could still open, on the same terms, with links by mail'
            }
          />
          <div className="row">
            <Button type="submit" variant="contained" color="error" disabled={busy}>
              Shut them out
            </Button>
            <Button
              variant="text"
              onClick={() => {
                setLeaving(false);
              }}
            >
              Cancel
            </Button>
          </div>
        </form>
      )}
      <Notice said={said} />
    </section>
  );
}

function Left({ at }: { readonly at: number }) {
  return (
    <p className="magenta">
      Marked as left on <Moment at={at} />.
    </p>
  );
}
