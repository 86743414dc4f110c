'use client';

import { useState, useSyncExternalStore } from 'react';
import Button from '@mui/material/Button';
import type { PasskeyAsked } from '@/contracts/passkeys';
import { call } from '@/ui/http/call';
import { answerTo, hasPasskeys } from '@/ui/reader/ask-passkey';
import { KeepDevice } from '@/ui/reader/keep-device';
import { makeDeviceKey } from '@/ui/reader/device-key';
import { usePasskeyAttempt } from '@/ui/reader/use-passkey-attempt';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

const never = () => () => undefined;
const PATH = '/api/v1/reader/passkeys/enter';

/** Coming in by a passkey that was made before, in place of a code. */
export function EnterByPasskey({
  onEntered,
}: {
  readonly onEntered: (address: string, kept: boolean) => void;
}) {
  const { say } = useWords();
  const { busy, problem, attempt } = usePasskeyAttempt();
  const [isChosen, setChosen] = useState(false);
  const [kept, setKept] = useState('visit');
  const can = useSyncExternalStore(never, hasPasskeys, () => false);
  if (!can) return null;
  if (!isChosen)
    return (
      <div className="row above-10">
        <Button
          variant="text"
          onClick={() => {
            setChosen(true);
          }}
        >
          {say('passkey.enter')}
        </Button>
      </div>
    );
  const enter = async () => {
    const asked = await call<PasskeyAsked>('POST', `${PATH}/begin`, {});
    const answer = await answerTo(asked);
    const publicKey = await makeDeviceKey();
    const { address } = await call<{ readonly address: string }>('POST', PATH, {
      answer,
      kept: kept === 'kept',
      publicKey,
    });
    onEntered(address, kept === 'kept');
  };
  return (
    <section className="stack above-10" aria-label={say('passkey.enter')}>
      <p className="quiet">{say('passkey.about')}</p>
      <KeepDevice kept={kept} onKept={setKept} />
      <Problem words={problem} />
      <div className="row">
        <Button variant="contained" autoFocus disabled={busy} onClick={() => void attempt(enter)}>
          {say('passkey.continue')}
        </Button>
      </div>
    </section>
  );
}
