'use client';

import { useState, type SubmitEvent } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import TextField from '@mui/material/TextField';
import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import { call, sentenceOf } from '@/ui/http/call';
import { makeDeviceKey } from '@/ui/reader/device-key';
import { Emblem } from '@/ui/shell/emblem';
import { recordedWords } from '@/ui/words/recorded-words';

/** Two steps: the address, then the code that was mailed to it. Before the proof nothing is shown of what was sent. */
export function ProveAddress({ token }: { readonly token: string }) {
  const [address, setAddress] = useState('');
  const [minutes, setMinutes] = useState<number | null>(null);
  const [code, setCode] = useState('');
  const [kept, setKept] = useState('visit');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  const ask = (event: SubmitEvent) => {
    event.preventDefault();
    void attempt(async () => {
      setMinutes(
        (
          await call<{ readonly minutes: number }>('POST', '/api/v1/reader/code', {
            token,
            address,
          })
        ).minutes,
      );
    });
  };
  const enter = (event: SubmitEvent) => {
    event.preventDefault();
    void attempt(async () => {
      await call('POST', '/api/v1/reader/device', {
        token,
        address,
        code,
        kept: kept === 'kept',
        publicKey: await makeDeviceKey(),
      });
      window.location.reload();
    });
  };

  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      {minutes === null ? (
        <form className="stack loose" onSubmit={ask}>
          <h1>You were sent a protected document.</h1>
          <p>
            Enter the email address the message came to. You will get a six-digit code by email; you
            need no account.
          </p>
          <TextField
            label="Your email address"
            type="email"
            autoComplete="email"
            required
            autoFocus
            value={address}
            onChange={(event) => {
              setAddress(event.target.value);
            }}
          />
          {problem !== null && (
            <p role="alert" className="magenta">
              {problem}
            </p>
          )}
          <div className="row">
            <Button type="submit" variant="contained" disabled={busy}>
              Email me a code
            </Button>
          </div>
        </form>
      ) : (
        <form className="stack loose" onSubmit={enter}>
          <h1>Enter the code</h1>
          <p>
            A code is on its way to <b>{address}</b>. It works for {minutes} minutes, in this
            browser.
          </p>
          <TextField
            label="Code"
            required
            autoFocus
            autoComplete="one-time-code"
            value={code}
            onChange={(event) => {
              setCode(event.target.value);
            }}
            slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 9 } }}
          />
          <RadioGroup
            value={kept}
            onChange={(_event, value) => {
              setKept(value);
            }}
            aria-label="This device"
          >
            <FormControlLabel
              value="visit"
              control={<Radio size="small" />}
              label="For this visit only: a borrowed or shared computer"
            />
            <FormControlLabel
              value="kept"
              control={<Radio size="small" />}
              label="Remember this device: it is mine, ask again in 60 days"
            />
          </RadioGroup>
          {problem !== null && (
            <p role="alert" className="magenta">
              {problem}
            </p>
          )}
          <div className="row">
            <Button type="submit" variant="contained" disabled={busy}>
              Continue
            </Button>
            <Button
              onClick={() => {
                setMinutes(null);
                setCode('');
                setProblem(null);
              }}
            >
              Use another email address
            </Button>
          </div>
          <p className="quiet">
            No code after a minute? Look in your junk mail folder, or ask for another one.
          </p>
        </form>
      )}
      <hr />
      <p className="quiet">
        Were you sent a file instead? <Link href="/r">Open a protected file</Link>
      </p>
      <p className="quiet">
        Recorded about you: your email address; {recordedWords[DEFAULT_LANGUAGE]}
      </p>
    </main>
  );
}
