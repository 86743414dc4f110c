'use client';

import { useEffect, useRef, useState } from 'react';
import type { DraftId } from '@/core/base/ids';
import type { DraftBody } from '@/core/policy/draft';
import { call } from '@/ui/http/call';

const WAIT = 900;

export type Draft = { readonly state: 'untouched' | 'changed' | 'kept' | 'not-kept'; readonly discard: () => Promise<void> };

/** Keeps what is composed as it is typed, so that closing the page loses nothing. */
export function useDraft(first: DraftId | null, body: DraftBody): Draft {
  const id = useRef(first);
  const text = JSON.stringify(body);
  const kept = useRef(text);
  const over = useRef(false);
  const [state, setState] = useState<Draft['state']>('untouched');

  useEffect(() => {
    if (text === kept.current || over.current) return undefined;
    setState('changed');
    const timer = setTimeout(() => {
      call<{ readonly id: DraftId }>('POST', '/api/v1/drafts', { id: id.current, body: JSON.parse(text) as DraftBody }).then(
        (result) => {
          if (id.current !== result.id) window.history.replaceState(null, '', `/compose?draft=${result.id}`);
          id.current = result.id;
          kept.current = text;
          setState('kept');
        },
        () => { setState('not-kept'); },
      );
    }, WAIT);
    return () => { clearTimeout(timer); };
  }, [text]);

  return {
    state,
    discard: async () => {
      over.current = true;
      if (id.current !== null) await call('DELETE', `/api/v1/drafts/${id.current}`).catch(() => undefined);
    },
  };
}
