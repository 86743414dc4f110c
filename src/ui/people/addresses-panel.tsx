'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import { addressInput, type PersonDetail } from '@/contracts/people';
import type { RecipientId } from '@/core/base/ids';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

/** The other addresses of a person: each is proven by itself; what shuts the person out is about all of them. */
export function AddressesPanel({ person }: { readonly person: PersonDetail }) {
  const mayChange = useHolds('block');
  const { busy, said, attempt } = useAttempt();
  if (!mayChange && person.others.length === 0) return null;
  return (
    <section className="stack tight" aria-label="Other email addresses">
      <h2>Other email addresses</h2>
      {person.others.map(({ id, address }) => (
        <div key={id} className="row">
          <Link href={`/people?person=${id}`}>{address}</Link>
          <span className="gap" />
          {mayChange && (
            <Button
              variant="text"
              disabled={busy}
              aria-label={`${address} is somebody else’s`}
              onClick={() =>
                void attempt(
                  () => api('DELETE /api/v1/people/:id/addresses', { id }),
                  `${address} is a person of its own again.`,
                )
              }
            >
              Separate
            </Button>
          )}
        </div>
      ))}
      {mayChange && <AddAddress id={person.id} attempt={attempt} />}
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

function AddAddress({
  id,
  attempt,
}: {
  readonly id: RecipientId;
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: addressInput,
    start: { id, address: '' },
    send: async (input) => {
      await api('POST /api/v1/people/:id/addresses', input);
      return input.address;
    },
    done: (address) => `${address} is now also theirs.`,
    onDone: () => {
      form.reset();
    },
    attempt,
  });
  return (
    <form className="row one-row top above-6" noValidate onSubmit={onSubmit}>
      <FormText
        control={form.control}
        name="address"
        label="Another email address"
        type="email"
        required
      />
      <Button type="submit" variant="text" className="nowrap" disabled={busy}>
        Add address
      </Button>
    </form>
  );
}
