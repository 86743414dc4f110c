'use client';

import Button from '@mui/material/Button';
import { askPasskey } from '@/ui/reader/ask-passkey';
import { leave } from '@/ui/reader/leave';
import { usePasskeyAttempt } from '@/ui/reader/use-passkey-attempt';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

/** Where a document asks for a passkey besides the address: it is used, or made, here. */
export function UsePasskey({ onDone }: { readonly onDone: () => void }) {
  const { say } = useWords();
  const { busy, problem, needsProof, attempt } = usePasskeyAttempt();
  return (
    <div className="stack above-10">
      <p className="quiet">{say('passkey.about')}</p>
      <Problem words={problem} />
      <div className="row">
        <Button
          variant="contained"
          disabled={busy}
          onClick={() =>
            void attempt(async () => {
              await askPasskey();
              onDone();
            })
          }
        >
          {say('passkey.continue')}
        </Button>
        {needsProof && <Button onClick={() => void leave()}>{say('refusal.proveAgain')}</Button>}
      </div>
    </div>
  );
}
