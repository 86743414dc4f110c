'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { destroyWords } from '@/core/policy/destroy-words';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import { DestroyDialog } from '@/ui/documents/destroy-dialog';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';

const MOST_NAMED = 12;

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
  const { busy, problem, attempt } = useAttempt();
  const words = destroyWords(documents.length);
  const destroy = (typed: string, reason: string) =>
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
          : `${counted(destroyed, 'key')} destroyed.`,
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
      <DestroyDialog
        open={asking}
        title={`Destroy the keys of ${counted(documents.length, 'document')}?`}
        action="Destroy the keys"
        words={words}
        isTyped={(typed) => typed.trim().toLowerCase() === words}
        busy={busy}
        problem={problem}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(typed, reason) => void destroy(typed, reason)}
      >
        <p>
          Nobody can open them through Embargo again, and <b>this cannot be undone</b>. What
          remains: prints and copies that were made, your own clear originals, and the recovery key,
          where a file carries a way in for it.
        </p>
        <p className="quiet">
          {titles.slice(0, MOST_NAMED).join('; ')}
          {titles.length > MOST_NAMED && ` and ${String(titles.length - MOST_NAMED)} more`}
        </p>
      </DestroyDialog>
    </>
  );
}
