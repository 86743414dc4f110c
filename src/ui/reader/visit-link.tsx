'use client';

import Button from '@mui/material/Button';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { makeDeviceKey } from '@/ui/reader/device-key';
import { Emblem } from '@/ui/shell/emblem';
import { recordedWords } from '@/ui/words/recorded-words';

/**
 * A link that asks nobody who they are: one click, since a machine that follows links must not
 * count as somebody reading.
 */
export function VisitLink({ token }: { readonly token: string }) {
  const { busy, problem, attempt } = useAttempt();
  const go = () =>
    attempt(async () => {
      await call('POST', '/api/v1/reader/visit', { token, publicKey: await makeDeviceKey() });
      window.location.reload();
    });
  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <div className="stack loose">
        <h1>Anyone with this link can read what is here.</h1>
        <p>You are not asked who you are.</p>
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        <div className="row">
          <Button variant="contained" disabled={busy} onClick={() => void go()}>
            Read it
          </Button>
        </div>
      </div>
      <hr />
      <p className="quiet">Recorded about you: {recordedWords}</p>
    </main>
  );
}
