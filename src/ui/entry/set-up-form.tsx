'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { generateX25519Identity, identityToRecipient } from 'age-encryption';
import { MIN_PASSWORD } from '@/contracts/staff';
import { call } from '@/ui/http/call';
import { EntryForm, FormError } from '@/ui/entry/entry-form';

type RecoveryPair = { readonly privateKey: string; readonly publicKey: string };

/** Offers a text as a file, without it ever leaving this browser. */
function saveText(text: string, name: string) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

function RecoveryKey({ pair, onMake, stored, onStored }: { readonly pair: RecoveryPair | null; readonly onMake: () => void; readonly stored: boolean; readonly onStored: (stored: boolean) => void }) {
  return (
    <section className="stack">
      <h2>Recovery key</h2>
      <p>Every file will be encrypted to this key as well, so that your organisation can open its files without Embargo, with the standard age tool. It is made in this browser; only its public half is sent.</p>
      {pair === null ? (
        <div className="row"><Button onClick={onMake}>Make the recovery key</Button></div>
      ) : (
        <>
          <p>This is the private half. It is shown this once and cannot be shown again:</p>
          <code className="key-text" data-testid="recovery-private">{pair.privateKey}</code>
          <div className="row"><Button onClick={() => { saveText(`# Embargo recovery key. Public half: ${pair.publicKey}\n${pair.privateKey}\n`, 'embargo-recovery-key.txt'); }}>Save as a file</Button></div>
          <FormControlLabel control={<Checkbox checked={stored} onChange={(_event, checked) => { onStored(checked); }} />} label="I have stored it where it will be found, and where nobody else finds it" />
        </>
      )}
    </section>
  );
}

/** The first visit: organisation, first administrator, recovery key. */
export function SetUpForm({ token }: { readonly token: string }) {
  const [pair, setPair] = useState<RecoveryPair | null>(null);
  const [stored, setStored] = useState(false);

  const make = async () => {
    const privateKey = await generateX25519Identity();
    setPair({ privateKey, publicKey: await identityToRecipient(privateKey) });
  };
  const send = async (fields: Readonly<Record<string, string>>) => {
    if (pair === null || !stored) throw new FormError('Make the recovery key and store it first: without it, a lost server means lost files.');
    await call('POST', '/api/v1/set-up', { ...fields, recoveryKey: pair.publicKey });
    window.location.assign('/sign-in');
  };

  return (
    <EntryForm title="Set up Embargo" action="Set up" onSend={send}>
      <TextField name="token" label="Set-up token, from the console" required defaultValue={token} autoComplete="off" />
      <TextField name="organisation" label="Name of your organisation" required autoComplete="organization" />
      <TextField name="zone" label="Time zone" required defaultValue={Intl.DateTimeFormat().resolvedOptions().timeZone} helperText="Used in messages and watermarks" />
      <TextField name="name" label="Your name" required autoComplete="name" />
      <TextField name="email" label="Your address" type="email" required autoComplete="username" />
      <TextField name="password" label={`Password, at least ${String(MIN_PASSWORD)} characters`} type="password" required autoComplete="new-password" />
      <RecoveryKey pair={pair} onMake={() => void make()} stored={stored} onStored={setStored} />
    </EntryForm>
  );
}
