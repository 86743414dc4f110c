'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { sentenceOf } from '@/ui/http/call';

/** What the last change came to, in a sentence; `stops` where it went wrong. */
export type Said = { readonly text: string; readonly stops: boolean };

export type Attempt = {
  readonly busy: boolean;
  readonly said: Said | null;
  /** The sentence where it went wrong; for places that show nothing when it went well. */
  readonly problem: string | null;
  /** Does something, says `done`, then has the page fetch its data anew. @returns whether it went well */
  readonly attempt: <T>(
    work: () => Promise<T>,
    done?: string | ((result: T) => string | undefined),
  ) => Promise<boolean>;
};

/** One change at a time from a part of a screen, with what came of it in words. */
export function useAttempt(): Attempt {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<Said | null>(null);
  const attempt: Attempt['attempt'] = async (work, done) => {
    setBusy(true);
    setSaid(null);
    try {
      const result = await work();
      const text = typeof done === 'function' ? done(result) : done;
      if (text !== undefined) setSaid({ text, stops: false });
      return true;
    } catch (error) {
      setSaid({ text: sentenceOf(error), stops: true });
      return false;
    } finally {
      // Also where it failed: often because what is shown is not what is there any more.
      router.refresh();
      setBusy(false);
    }
  };
  return { busy, said, problem: said?.stops === true ? said.text : null, attempt };
}
