'use client';

import { useState, useSyncExternalStore } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { PasskeyAsked } from '@/contracts/passkeys';
import { call } from '@/ui/http/call';
import { answerTo, hasPasskeys } from '@/ui/reader/ask-passkey';
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
  const [kept, setKept] = useState(false);
  const can = useSyncExternalStore(never, hasPasskeys, () => false);
  if (!can) return null;
  return (
    <div className="stack above-10">
      <Problem words={problem} />
      <div className="row">
        <Button
          disabled={busy}
          onClick={() =>
            void attempt(async () => {
              const asked = await call<PasskeyAsked>('POST', `${PATH}/begin`, {});
              const answer = await answerTo(asked);
              const publicKey = await makeDeviceKey();
              const { address } = await call<{ readonly address: string }>('POST', PATH, {
                answer,
                kept,
                publicKey,
              });
              onEntered(address, kept);
            })
          }
        >
          {say('passkey.enter')}
        </Button>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={kept}
              onChange={(_event, on) => {
                setKept(on);
              }}
            />
          }
          label={say('prove.keep')}
        />
      </div>
    </div>
  );
}
