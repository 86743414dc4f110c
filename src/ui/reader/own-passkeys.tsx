'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { OwnPasskey } from '@/contracts/passkeys';
import { CallError } from '@/ui/http/call';
import { askPasskey } from '@/ui/reader/ask-passkey';
import { leave } from '@/ui/reader/leave';
import { readerCall } from '@/ui/reader/reader-call';
import { usePasskeyAttempt } from '@/ui/reader/use-passkey-attempt';
import { Problem } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

/** Removing one needs one to be used here first, so that a mailbox alone removes none. */
async function remove({ id }: OwnPasskey): Promise<readonly OwnPasskey[]> {
  const ask = () =>
    readerCall<readonly OwnPasskey[]>('POST', `/api/v1/reader/passkeys/${id}/remove`, {});
  try {
    return await ask();
  } catch (error) {
    if (!(error instanceof CallError) || error.code !== 'CONFLICT') throw error;
    await askPasskey();
    return ask();
  }
}

/** The passkeys of this person: made, and removed, each by itself. */
export function OwnPasskeys({
  passkeys,
  onPasskeys,
}: {
  readonly passkeys: readonly OwnPasskey[];
  readonly onPasskeys: (passkeys: readonly OwnPasskey[]) => void;
}) {
  const { say } = useWords();
  const { busy, problem, needsProof, attempt } = usePasskeyAttempt();
  const [said, setSaid] = useState<string | null>(null);
  const change = (work: () => Promise<readonly OwnPasskey[]>, done: string) => {
    setSaid(null);
    void attempt(async () => {
      onPasskeys(await work());
      setSaid(done);
    });
  };
  const moment = (at: number) => () => <Moment at={at} />;
  return (
    <section className="stack">
      <h2>{say('passkey.heading')}</h2>
      <p className="quiet">
        {say('passkey.intro')} {say('passkey.about')}
      </p>
      {passkeys.length === 0 && <p>{say('passkey.none')}</p>}
      <Problem words={problem} />
      {said !== null && <p role="status">{said}</p>}
      <ul>
        {passkeys.map((passkey) => (
          <li key={passkey.id} className="row">
            <div>
              <b>{passkey.label}</b>
              <br />
              <span className="quiet small">
                {say.rich('passkey.used', {
                  when: moment(passkey.since),
                  used: moment(passkey.usedAt),
                })}
              </span>
            </div>
            <Button
              size="small"
              color="error"
              disabled={busy}
              aria-label={say('passkey.removeNamed', { label: passkey.label })}
              onClick={() => {
                change(() => remove(passkey), say('passkey.removed'));
              }}
            >
              {say('passkey.remove')}
            </Button>
          </li>
        ))}
      </ul>
      <div className="row">
        <Button
          disabled={busy}
          onClick={() => {
            change(() => askPasskey(passkeys.length > 0), say('passkey.made'));
          }}
        >
          {say(passkeys.length === 0 ? 'passkey.make' : 'passkey.another')}
        </Button>
        {needsProof && <Button onClick={() => void leave()}>{say('refusal.proveAgain')}</Button>}
      </div>
    </section>
  );
}
