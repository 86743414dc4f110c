'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { type FactorOffer } from '@/contracts/staff';
import { confirmFactorInput } from '@/contracts/identity';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';

/** A second factor to sign in with: set up, or turned off again. */
export function FactorPart({ on }: { readonly on: boolean }) {
  const [offer, setOffer] = useState<FactorOffer | null>(null);
  const { said, attempt } = useAttempt();
  const begin = () =>
    attempt(async () => {
      setOffer(await api('POST /api/v1/you/factor/begin', {}));
    });
  const remove = () =>
    attempt(
      () => api('DELETE /api/v1/you/factor', {}),
      'The second factor is off: your password alone signs you in.',
    );
  return (
    <>
      <h2 className="above-12">Second factor</h2>
      <Notice said={said} />
      <p>
        {on
          ? 'On. You sign in with your password and the code of an authenticator app.'
          : 'Off. Anyone who learns your password can sign in as you. An authenticator app ' +
            'on your phone adds a code that changes every half minute.'}
      </p>
      {on && (
        <div className="row">
          <Button color="error" onClick={() => void remove()}>
            Turn off second factor…
          </Button>
        </div>
      )}
      {!on && offer === null && (
        <div className="row">
          <Button variant="contained" onClick={() => void begin()}>
            Set up a second factor
          </Button>
        </div>
      )}
      {!on && offer !== null && (
        <ConfirmFactor
          offer={offer}
          attempt={attempt}
          onClose={() => {
            setOffer(null);
          }}
        />
      )}
    </>
  );
}

/** The secret to take into an app, and a code that shows it is there. */
function ConfirmFactor({
  offer: { secret, seal, picture },
  attempt,
  onClose,
}: {
  readonly offer: FactorOffer;
  readonly attempt: Attempt['attempt'];
  readonly onClose: () => void;
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: confirmFactorInput,
    start: { secret, seal, code: '' },
    send: (input) => api('POST /api/v1/you/factor', input),
    done: 'The second factor is set up. From now on you sign in with password and code.',
    onDone: onClose,
    attempt,
  });
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <div className="row top loose">
        <img
          className="qr"
          alt="QR code for an authenticator app"
          width={176}
          height={176}
          src={`data:image/svg+xml,${encodeURIComponent(picture)}`}
        />
        <div className="stack gap">
          <p>Scan this with your authenticator app, or type the secret there:</p>
          <code className="key-text">{secret.replaceAll(/(.{4})/g, '$1 ').trim()}</code>
        </div>
      </div>
      <FormText
        control={form.control}
        name="code"
        label="Code from the app"
        className="narrow"
        autoComplete="one-time-code"
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        required
      />
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Turn on second factor
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
