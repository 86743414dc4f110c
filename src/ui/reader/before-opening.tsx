'use client';

import Button from '@mui/material/Button';
import { useWords } from '@/ui/words/use-words';

export function Opening() {
  const { say } = useWords();
  return (
    <main className="blank">
      <p role="status">{say('opening')}</p>
    </main>
  );
}

/** What went wrong, and a way to begin again. */
export function Stuck({
  words,
  onLeave,
}: {
  readonly words: string;
  readonly onLeave?: () => void;
}) {
  const { say } = useWords();
  return (
    <main className="blank">
      <div className="stack">
        <h1>{words}</h1>
        <div className="row">
          <Button
            onClick={() => {
              window.location.reload();
            }}
          >
            {say('tryAgain')}
          </Button>
          {onLeave !== undefined && <Button onClick={onLeave}>{say('refusal.proveAgain')}</Button>}
        </div>
      </div>
    </main>
  );
}
