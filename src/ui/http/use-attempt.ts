'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { sentenceOf } from '@/ui/http/call';

export type Attempt = {
  readonly busy: boolean;
  /** What went wrong with the last one, as a sentence. */
  readonly problem: string | null;
  /** Does something, then has the page fetch its data anew. @returns whether it went well */
  readonly attempt: (work: () => Promise<unknown>) => Promise<boolean>;
};

/** One change at a time from a part of a screen, with its problem in words. */
export function useAttempt(): Attempt {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = async (work: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      router.refresh();
      return true;
    } catch (error) {
      setProblem(sentenceOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, problem, attempt };
}
