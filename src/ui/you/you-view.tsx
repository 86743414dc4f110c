'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { FactorOffer, YouPage } from '@/contracts/staff';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { NoticesPart } from '@/ui/you/notices-part';
import { roleHints } from '@/ui/words/role-words';

/** Who is at the screen, and how they sign in. */
export function YouView({ you }: { readonly you: YouPage }) {
  const [offer, setOffer] = useState<FactorOffer | null>(null);
  const { said, attempt } = useAttempt();
  const begin = () =>
    attempt(async () => {
      setOffer(await call<FactorOffer>('POST', '/api/v1/you/factor/begin', {}));
    });
  const confirm = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const code = new FormData(event.currentTarget).get('code');
    const done = await attempt(
      () => call('POST', '/api/v1/you/factor', { secret: offer?.secret, seal: offer?.seal, code }),
      'The second factor is set up. From now on you sign in with password and code.',
    );
    if (done) setOffer(null);
  };
  const remove = () =>
    attempt(
      () => call('DELETE', '/api/v1/you/factor'),
      'The second factor is off: your password alone signs you in.',
    );
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{you.name}</h1>
            <span className="quiet">
              {you.email} · {you.role}
            </span>
          </div>
        </div>
        <div className="scroll" style={{ padding: '16px 22px 40px' }}>
          <div className="stack" style={{ maxWidth: 620 }}>
            <h2>What you may do</h2>
            <p>{roleHints[you.role]}</p>
            <NoticesPart choices={you.notices} />
            <h2 className="above-12">Second factor</h2>
            <Notice said={said} />
            <p>
              {you.factor
                ? 'On. You sign in with your password and the code of an authenticator app.'
                : 'Off. Anyone who learns your password can sign in as you. An authenticator app ' +
                  'on your phone adds a code that changes every half minute.'}
            </p>
            {you.factor && (
              <div className="row">
                <Button color="error" onClick={() => void remove()}>
                  Turn off second factor…
                </Button>
              </div>
            )}
            {!you.factor && offer === null && (
              <div className="row">
                <Button variant="contained" onClick={() => void begin()}>
                  Set up a second factor
                </Button>
              </div>
            )}
            {!you.factor && offer !== null && (
              <form className="stack loose" onSubmit={(event) => void confirm(event)}>
                <div className="row" style={{ alignItems: 'flex-start', gap: 20 }}>
                  <img
                    alt="QR code for an authenticator app"
                    width={176}
                    height={176}
                    src={`data:image/svg+xml,${encodeURIComponent(offer.picture)}`}
                    style={{ background: '#fff', border: '1px solid var(--line)' }}
                  />
                  <div className="stack" style={{ flex: 1, minWidth: 240 }}>
                    <p>Scan this with your authenticator app, or type the secret there:</p>
                    <code className="key-text">
                      {offer.secret.replaceAll(/(.{4})/g, '$1 ').trim()}
                    </code>
                  </div>
                </div>
                <TextField
                  name="code"
                  label="Code from the app"
                  autoComplete="one-time-code"
                  inputMode="numeric"
                  required
                  sx={{ maxWidth: 240 }}
                />
                <div className="row">
                  <Button type="submit" variant="contained">
                    Turn on second factor
                  </Button>
                  <Button
                    onClick={() => {
                      setOffer(null);
                    }}
                  >
                    Cancel
                  </Button>
                </div>
              </form>
            )}
          </div>
        </div>
      </div>
    </main>
  );
}
