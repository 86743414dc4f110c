'use client';

import { useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { sentenceOf } from '@/ui/http/call';

/** What the last change came to, in a sentence; `stops` where it went wrong. */
export type Said = { readonly text: string; readonly stops: boolean };

export type Attempt = {
  /** Until it is done and the page's own data is there anew, so that nothing is pressed on what was. */
  readonly busy: boolean;
  readonly said: Said | null;
  /** The sentence where it went wrong; for places that show nothing when it went well. */
  readonly problem: string | null;
  /** Takes what was said away. */
  readonly hush: () => void;
  /** Does something, says `done`, then has the page fetch its data anew. @returns whether it went well */
  readonly attempt: <T>(
    work: () => Promise<T>,
    done?: string | ((result: T) => string | undefined),
  ) => Promise<boolean>;
};

/** One change at a time from a part of a screen, with what came of it in words. */
export function useAttempt(): Attempt {
  const router = useRouter();
  const client = useQueryClient();
  const [said, setSaid] = useState<Said | null>(null);
  const [refreshing, refresh] = useTransition();
  const { mutateAsync, isPending } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => {
      // Also where it failed: often because what is shown is not what is there any more.
      refresh(() => {
        router.refresh();
      });
      void client.invalidateQueries();
    },
  });
  const attempt = async <T>(
    work: () => Promise<T>,
    done?: string | ((result: T) => string | undefined),
  ): Promise<boolean> => {
    setSaid(null);
    try {
      const result = (await mutateAsync(work)) as T;
      const text = typeof done === 'function' ? done(result) : done;
      if (text !== undefined) setSaid({ text, stops: false });
      return true;
    } catch (error) {
      setSaid({ text: sentenceOf(error), stops: true });
      return false;
    }
  };
  return {
    busy: isPending || refreshing,
    said,
    problem: said?.stops === true ? said.text : null,
    hush: () => {
      setSaid(null);
    },
    attempt,
  };
}
