'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { PersonDetail } from '@/contracts/people';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

/** The other addresses of a person: each is proven by itself; what shuts the person out is about all of them. */
export function AddressesPanel({ person }: { readonly person: PersonDetail }) {
  const mayChange = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  const [address, setAddress] = useState('');
  if (!mayChange && person.others.length === 0) return null;
  const join = () =>
    attempt(
      () => call('POST', `/api/v1/people/${person.id}/addresses`, { address }),
      `${address} is now also theirs.`,
    ).then((done) => {
      if (done) setAddress('');
    });
  return (
    <section className="stack tight" aria-label="Other email addresses">
      <h2>Other email addresses</h2>
      {person.others.map((other) => (
        <div key={other.id} className="row">
          <Link href={`/people?person=${other.id}`}>{other.address}</Link>
          <span className="gap" />
          {mayChange && (
            <Button
              variant="text"
              disabled={busy}
              aria-label={`${other.address} is somebody else’s`}
              onClick={() =>
                void attempt(
                  () => call('DELETE', `/api/v1/people/${other.id}/addresses`),
                  `${other.address} is a person of its own again.`,
                )
              }
            >
              Separate
            </Button>
          )}
        </div>
      ))}
      {mayChange && (
        <form
          className="row"
          onSubmit={(event) => {
            event.preventDefault();
            void join();
          }}
        >
          <input
            className="plain"
            type="email"
            required
            aria-label="Another email address"
            placeholder="another email address"
            value={address}
            onChange={(event) => {
              setAddress(event.target.value);
            }}
            style={{ width: 200 }}
          />
          <Button type="submit" variant="text" disabled={busy}>
            Add address
          </Button>
        </form>
      )}
      {person.others.length > 0 && (
        <p className="quiet">
          Each is proven separately and has its own access. Revoking everything, blocking and
          leaving apply to all of them.
        </p>
      )}
      <Notice said={said} />
    </section>
  );
}
