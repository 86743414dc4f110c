'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { call, sentenceOf } from '@/ui/http/call';
import { makeDeviceKey } from '@/ui/reader/device-key';
import { Emblem } from '@/ui/shell/emblem';
import { useWords } from '@/ui/words/use-words';

/**
 * A link that asks nobody who they are: one click, since a machine that follows links must not
 * count as somebody reading.
 */
export function VisitLink({ token }: { readonly token: string }) {
  const { say } = useWords();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const go = async () => {
    setBusy(true);
    try {
      await call('POST', '/api/v1/reader/visit', { token, publicKey: await makeDeviceKey() });
      window.location.reload();
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <div className="stack loose">
        <h1>{say('visit.heading')}</h1>
        <p>{say('visit.notAsked')}</p>
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        <div className="row">
          <Button variant="contained" disabled={busy} onClick={() => void go()}>
            {say('visit.read')}
          </Button>
        </div>
      </div>
      <hr />
      <p className="quiet">{say('recorded.visitor')}</p>
    </main>
  );
}
