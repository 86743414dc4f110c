'use client';

import Button from '@mui/material/Button';
import type { PersonDetail } from '@/contracts/people';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';

/** What proves a person besides their mailbox; where it is lost, it is taken off, and they make a new one. */
export function PersonPasskeys({ person: { id, passkeys } }: { readonly person: PersonDetail }) {
  const blocks = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  return (
    <div className="stack">
      {passkeys.length === 0 && <p className="quiet">They have made no passkey.</p>}
      {passkeys.map(({ id: passkey, label, since, usedAt }) => (
        <p key={passkey}>
          {label}
          <span className="under quiet small">
            made <Moment at={since} />, last used <Moment at={usedAt} />
          </span>
        </p>
      ))}
      {blocks && passkeys.length > 0 && (
        <div className="row">
          <Button
            size="small"
            color="error"
            disabled={busy}
            onClick={() =>
              void attempt(
                () => api('DELETE /api/v1/people/:id/passkeys', { id }),
                'Their passkeys were removed. What asks for one opens again once they have made a new one.',
              )
            }
          >
            Remove {passkeys.length === 1 ? 'this passkey' : 'these passkeys'}
          </Button>
        </div>
      )}
      <Notice said={said} />
    </div>
  );
}

/** The browsers in which a person proved their address; one can be shut out, and the others go on. */
export function PersonDevices({ person: { id, devices } }: { readonly person: PersonDetail }) {
  const blocks = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  if (devices.length === 0)
    return <p className="quiet">No device has proven this email address.</p>;
  return (
    <div className="stack">
      {devices.map(({ id: device, label, name, kept, since, until, openedAt }) => (
        <div key={device} className="row one-row">
          <p>
            {name === null ? label : `${name} (${label})`}
            <span className="under quiet small">
              {kept ? 'remembered' : 'for one visit'} since <Moment at={since} />, until{' '}
              <Moment at={until} />
              {openedAt !== null && (
                <>
                  ; last opened something <Moment at={openedAt} />
                </>
              )}
            </span>
          </p>
          <span className="gap" />
          {blocks && (
            <Button
              size="small"
              className="nowrap"
              color="error"
              disabled={busy}
              aria-label={`Shut out ${label}`}
              onClick={() =>
                void attempt(
                  () => api('DELETE /api/v1/people/:id/devices/:device', { id, device }),
                  `${label} was shut out: nothing opens there until the email address is proven there again.`,
                )
              }
            >
              Shut out
            </Button>
          )}
        </div>
      ))}
      <Notice said={said} />
    </div>
  );
}
