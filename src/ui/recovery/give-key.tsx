'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { isLocked, openIdentity } from '@/core/age/identity-file';
import { AppError } from '@/core/base/errors';
import { utf8 } from '@/core/base/bytes';

type Props = {
  readonly action: string;
  readonly busy?: boolean;
  /** Does something with the private key; a text says what was wrong with it. */ readonly onKey: (
    privateKey: string,
  ) => Promise<string | null>;
};

/**
 * Takes the private key, typed or as the file it was saved in, with the passphrases it is kept
 * under. It stays in this page.
 */
export function GiveKey({ action, busy = false, onKey }: Props) {
  const [text, setText] = useState('');
  const [passphrases, setPassphrases] = useState<readonly [string, string]>(['', '']);
  const [working, setWorking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const locked = isLockedText(text);
  const go = async () => {
    setWorking(true);
    setProblem(null);
    try {
      const said = await onKey(
        await openIdentity(utf8(text), (layer) => Promise.resolve(passphrases[layer] ?? '')),
      );
      setProblem(said);
      if (said === null) {
        setText('');
        setPassphrases(['', '']);
      }
    } catch (error) {
      setProblem(error instanceof AppError ? error.message : 'This is not a recovery key.');
    }
    setWorking(false);
  };
  const pick = async (files: FileList | null) => {
    const file = files?.item(0);
    if (file != null) setText((await file.slice(0, 100_000).text()).trim());
  };
  return (
    <div className="stack loose">
      <TextField
        label="Recovery key, private half"
        multiline
        maxRows={4}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
        }}
        autoComplete="off"
        helperText="Paste it, or choose the file you saved. It does not leave this page."
        slotProps={{ htmlInput: { spellCheck: false } }}
      />
      <div className="row">
        <Button component="label">
          Choose the file
          <input
            type="file"
            hidden
            aria-label="The recovery key’s file"
            onChange={(event) => void pick(event.target.files)}
          />
        </Button>
      </div>
      {locked &&
        [0, 1].map((layer) => (
          <TextField
            key={layer}
            label={layer === 0 ? 'Passphrase' : 'Passphrase of the other person, if there are two'}
            type="password"
            autoComplete="off"
            value={passphrases[layer] ?? ''}
            onChange={(event) => {
              setPassphrases(([first, second]) =>
                layer === 0 ? [event.target.value, second] : [first, event.target.value],
              );
            }}
          />
        ))}
      <div className="row">
        <Button disabled={busy || working || text.trim() === ''} onClick={() => void go()}>
          {working ? 'Opening…' : action}
        </Button>
      </div>
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </div>
  );
}

function isLockedText(text: string): boolean {
  try {
    return isLocked(utf8(text));
  } catch {
    return false;
  }
}
