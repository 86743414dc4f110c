import { useState } from 'react';
import { CallError, sentenceOf } from '@/ui/http/call';
import { hasPasskeys, NoPasskeyError } from '@/ui/reader/ask-passkey';
import { useWords } from '@/ui/words/use-words';

/** Something that asks for a passkey, and what is said where none was used. */
export function usePasskeyAttempt() {
  const { say } = useWords();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  /** The code was entered too long ago for a first passkey to rest on it. */
  const [needsProof, setNeedsProof] = useState(false);
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    if (!hasPasskeys()) {
      setProblem(say('passkey.unsupported'));
      return;
    }
    setBusy(true);
    setProblem(null);
    setNeedsProof(false);
    try {
      await work();
    } catch (error) {
      setNeedsProof(error instanceof CallError && error.code === 'CONFLICT');
      setProblem(error instanceof NoPasskeyError ? say('passkey.cancelled') : sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return { busy, problem, needsProof, attempt };
}
