'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import TextField from '@mui/material/TextField';
import { lockIdentity } from '@/core/age/identity-file';
import { GiveKey } from '@/ui/recovery/give-key';
import {
  keyFileText,
  makePair,
  publicHalf,
  saveText,
  type RecoveryKind,
  type RecoveryPair,
} from '@/ui/recovery/recovery-pair';

const SHORTEST = 12;

type Props = {
  /** Whether two people have to keep it, each under a passphrase of their own. */
  readonly twoPeople: boolean;
  /** Is told the public half once the private one was shown to be kept. */
  readonly onKept: (publicKey: string) => void;
};

/** Makes the recovery key in this browser, shows it once, has it saved, and asks for it back. */
export function MakeRecovery({ twoPeople, onKept }: Props) {
  const [kind, setKind] = useState<RecoveryKind>('x25519');
  const [pair, setPair] = useState<RecoveryPair | null>(null);
  const [shown, setShown] = useState(true);
  const [kept, setKept] = useState(false);
  if (kept)
    return (
      <p role="status" className="current">
        The recovery key was stored and entered again correctly.
      </p>
    );
  if (pair === null) {
    return (
      <div className="stack">
        <RadioGroup
          value={kind}
          onChange={(_event, value) => {
            setKind(value === 'hybrid' ? 'hybrid' : 'x25519');
          }}
          aria-label="Kind of key"
        >
          <FormControlLabel
            value="x25519"
            control={<Radio size="small" />}
            label="X25519: every age tool opens it"
          />
          <FormControlLabel
            value="hybrid"
            control={<Radio size="small" />}
            label="Post-quantum hybrid: opened by Embargo’s own recover and by age 1.3 or later"
          />
        </RadioGroup>
        <div className="row">
          <Button onClick={() => void makePair(kind).then(setPair)}>Make the recovery key</Button>
        </div>
      </div>
    );
  }
  return (
    <div className="stack">
      {shown && !twoPeople && (
        <>
          <p>This is the private half. It is shown only once:</p>
          <code className="key-text" data-testid="recovery-private">
            {pair.privateKey}
          </code>
          <div className="row">
            <Button
              onClick={() => {
                saveText(keyFileText(pair), 'embargo-recovery-key.txt');
              }}
            >
              Save as a file
            </Button>
          </div>
        </>
      )}
      <KeepUnder pair={pair} twoPeople={twoPeople} />
      <h2>Enter it again</h2>
      <p>
        Store it first, where you will find it and nobody else will. Then enter it again from there,
        so that you know it works.
      </p>
      <GiveKey
        action="Check key"
        onKey={async (privateKey) => {
          if ((await publicHalf(privateKey)) !== pair.publicKey)
            return 'This is not the key that was just made.';
          setShown(false);
          setKept(true);
          onKept(pair.publicKey);
          return null;
        }}
      />
    </div>
  );
}

/** Saves the key under a passphrase, or under two: then both people are needed, each with their own. */
function KeepUnder({
  pair,
  twoPeople,
}: {
  readonly pair: RecoveryPair;
  readonly twoPeople: boolean;
}) {
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  const [working, setWorking] = useState(false);
  const enough =
    first.length >= SHORTEST && (second === '' ? !twoPeople : second.length >= SHORTEST);
  const save = async () => {
    setWorking(true);
    // The last to be set is asked for first.
    saveText(
      await lockIdentity(keyFileText(pair), second === '' ? [first] : [second, first]),
      'embargo-recovery-key.age.txt',
    );
    setWorking(false);
  };
  return (
    <details open={twoPeople}>
      <summary>
        {twoPeople ? 'Two people keep it, each with a passphrase' : 'Or keep it under a passphrase'}
      </summary>
      <div className="stack loose above-12">
        <TextField
          label={`Passphrase, at least ${String(SHORTEST)} characters`}
          type="password"
          autoComplete="new-password"
          value={first}
          onChange={(event) => {
            setFirst(event.target.value);
          }}
        />
        <TextField
          label={
            twoPeople
              ? 'Passphrase of the other person'
              : 'Passphrase of a second person, if both are to be needed'
          }
          type="password"
          autoComplete="new-password"
          value={second}
          onChange={(event) => {
            setSecond(event.target.value);
          }}
        />
        <div className="row">
          <Button disabled={!enough || working} onClick={() => void save()}>
            {working ? 'Locking…' : 'Save under the passphrase'}
          </Button>
        </div>
        <p className="quiet">
          An age file{twoPeople || second !== '' ? ', one inside the other' : ''}: standard tools
          open it with the passphrase{twoPeople || second !== '' ? 's' : ''}.
        </p>
      </div>
    </details>
  );
}
