'use client';

import { useEffect, useRef, useState } from 'react';
import type { DraftId } from '@/core/base/ids';
import type { DraftBody } from '@/core/policy/draft';
import { api } from '@/ui/http/api';

const WAIT = 900;

export type Draft = {
  readonly state: 'untouched' | 'changed' | 'kept' | 'not-kept';
  readonly discard: () => Promise<void>;
  /**
   * Ends keeping, and waits for what is being kept: what leaves then takes its draft with it.
   * @returns the draft; null: there is none
   */
  readonly settle: () => Promise<DraftId | null>;
  /** Goes on keeping: nothing left. */
  readonly goOn: () => void;
};

/** Keeps what is composed as it is typed, so that closing the page loses nothing. */
export function useDraft(first: DraftId | null, body: DraftBody): Draft {
  const id = useRef(first);
  const text = JSON.stringify(body);
  const kept = useRef(text);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const [isOver, setOver] = useState(false);
  const over = useRef(false);
  const [state, setState] = useState<Draft['state']>('untouched');

  useEffect(() => {
    if (text === kept.current || isOver) return undefined;
    setState('changed');
    const save = async (): Promise<void> => {
      // Waited out its turn, it may be over by now.
      if (over.current) return;
      try {
        const result = await api('POST /api/v1/drafts', {
          id: id.current,
          body: JSON.parse(text) as DraftBody,
        });
        if (id.current !== result.id)
          window.history.replaceState(null, '', `/compose?draft=${result.id}`);
        id.current = result.id;
        kept.current = text;
        setState('kept');
      } catch {
        setState('not-kept');
      }
    };
    // One after another: two at once would be two drafts.
    const timer = setTimeout(() => {
      saving.current = saving.current.then(save);
    }, WAIT);
    return () => {
      clearTimeout(timer);
    };
  }, [text, isOver]);

  const end = (isEnd: boolean): void => {
    over.current = isEnd;
    setOver(isEnd);
  };
  const settle = async (): Promise<DraftId | null> => {
    end(true);
    await saving.current;
    return id.current;
  };
  return {
    state,
    settle,
    goOn: () => {
      end(false);
    },
    discard: async () => {
      const left = await settle();
      if (left !== null)
        await api('DELETE /api/v1/drafts/:id', { id: left }).catch(() => undefined);
    },
  };
}
