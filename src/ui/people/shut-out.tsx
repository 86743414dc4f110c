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
import { useHolds } from '@/ui/shell/powers';
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
          ? 'What they held stands underneath as it was.'
          : 'Blocking stops them whatever they hold or will be given, until they are unblocked.'}
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
          className="stack"
          style={{ gap: 12 }}
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
            They are shut out of {canOpen} {canOpen === 1 ? 'document' : 'documents'} at once, by
            each of their addresses, and are out of {person.inGroups.length}{' '}
            {person.inGroups.length === 1 ? 'group' : 'groups'}.
          </p>
          <TextField
            label="Who takes over"
            type="email"
            value={successor}
            onChange={(event) => {
              setSuccessor(event.target.value);
            }}
            helperText={
              successor === ''
                ? 'Empty: nobody'
                : 'Is given, on the same terms, what they could still open, and mailed their links'
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
              Leave it
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
      Has left, as was said on <Moment at={at} />.
    </p>
  );
}
