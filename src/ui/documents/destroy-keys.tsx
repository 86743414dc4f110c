'use client';

import { counted } from '@/core/base/counted';
import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { destroyWords } from '@/contracts/keys';
import type { DocumentId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Confirmation } from '@/ui/shell/confirmation';

/**
 * Destroys the keys of several documents, once it was typed how many; says what remains, or that a
 * second person is asked.
 */
export function DestroyKeys({
  documents,
  titles,
  onDone,
}: {
  readonly documents: readonly DocumentId[];
  readonly titles: readonly string[];
  readonly onDone: (said: string) => void;
}) {
  const [asking, setAsking] = useState(false);
  const [typed, setTyped] = useState('');
  const { busy, problem, attempt } = useAttempt();
  const words = destroyWords(documents.length);
  const act = (reason: string) =>
    attempt(async () => {
      const { destroyed, waits } = await api('POST /api/v1/documents/destroy-keys', {
        documents,
        typed,
        reason,
      });
      setAsking(false);
      onDone(
        waits
          ? 'A second administrator was asked. Nothing is destroyed until they approve.'
          : `${String(destroyed)} ${destroyed === 1 ? 'key' : 'keys'} destroyed.`,
      );
    });
  return (
    <>
      <Button
        color="error"
        onClick={() => {
          setAsking(true);
        }}
      >
        Destroy the keys…
      </Button>
      <Confirmation
        open={asking}
        busy={busy || typed.trim().toLowerCase() !== words}
        title={`Destroy the keys of ${counted(documents.length, 'document')}?`}
        action="Destroy the keys"
        onClose={() => {
          setAsking(false);
          setTyped('');
        }}
        onConfirm={(reason) => void act(reason)}
      >
        <p>
          Nobody can open them through Embargo again, and <b>this cannot be undone</b>. What
          remains: prints and copies that were made, your own clear originals, and the recovery key,
          where a file carries a way in for it.
        </p>
        <p className="quiet">
          {titles.slice(0, 12).join('; ')}
          {titles.length > 12 && ` and ${String(titles.length - 12)} more`}
        </p>
        <TextField
          label={`Type ${words} to confirm`}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
          }}
          autoComplete="off"
        />
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
      </Confirmation>
    </>
  );
}
