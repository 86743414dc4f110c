'use client';

import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import type { ComposeStart } from '@/contracts/draft';
import type { DraftId } from '@/core/base/ids';
import type { DraftBody } from '@/core/compose/draft';
import { api } from '@/ui/http/api';
import { CallError } from '@/ui/http/call';

const WAIT = 900;

export type Draft = {
  /** `elsewhere`: another window changed it, and nothing is saved over that. */
  readonly state: 'untouched' | 'changed' | 'kept' | 'not-kept' | 'elsewhere';
  readonly discard: () => Promise<void>;
  /** Saves what is here as a draft of its own, beside the one that another window changed. */
  readonly saveApart: () => void;
  /**
   * Keeps what is here and ends keeping: what leaves then takes its draft with it.
   * @returns the draft; null: there is none
   */
  readonly settle: () => Promise<DraftId | null>;
  /** Goes on keeping: nothing left. */
  readonly goOn: () => void;
};

/**
 * Keeps what is composed as it is typed, so that closing the page loses nothing.
 *
 * @param onMade told of each draft that is made here
 */
export function useDraft(
  first: ComposeStart['draft'],
  body: DraftBody,
  onMade: (id: DraftId) => void,
): Draft {
  const id = useRef(first?.id ?? null);
  const revision = useRef(first?.revision ?? 0);
  const { sheet, subject, note, watermark, way, leavesAt, waved } = body;
  const told = JSON.stringify({ subject, note, watermark, way, leavesAt, waved });
  // A sheet of hundreds of rows is written out when it changed, and not at every key.
  const text = useMemo(
    () => JSON.stringify({ sheet, ...(JSON.parse(told) as Omit<DraftBody, 'sheet'>) }),
    [sheet, told],
  );
  const kept = useRef(text);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const [isOver, setOver] = useState(false);
  const over = useRef(false);
  const [state, setState] = useState<Draft['state']>('untouched');
  const isElsewhere = state === 'elsewhere';

  const keep = async (what: string): Promise<void> => {
    // Where nothing was changed yet there is no draft to come back to: then one is made.
    if (what === kept.current && id.current !== null) return;
    try {
      const result = await api('POST /api/v1/drafts', {
        id: id.current,
        seen: revision.current,
        body: JSON.parse(what) as DraftBody,
      });
      if (id.current !== result.id) {
        onMade(result.id);
        window.history.replaceState(null, '', `/compose?draft=${result.id}`);
      }
      id.current = result.id;
      revision.current = result.revision;
      kept.current = what;
      setState('kept');
    } catch (error) {
      const isConflict = error instanceof CallError && error.code === 'CONFLICT';
      setState(isConflict && id.current !== null ? 'elsewhere' : 'not-kept');
    }
  };
  const keepNow = useEffectEvent(async (what: string) => {
    // Waited out its turn, it may be over by now.
    if (!over.current) await keep(what);
  });

  useEffect(() => {
    if (text === kept.current || isOver || isElsewhere) return undefined;
    setState('changed');
    // One after another: two at once would be two drafts.
    const timer = setTimeout(() => {
      saving.current = saving.current.then(() => keepNow(text));
    }, WAIT);
    return () => {
      clearTimeout(timer);
    };
  }, [text, isOver, isElsewhere]);

  const end = (isEnd: boolean): void => {
    over.current = isEnd;
    setOver(isEnd);
  };
  const settle = async (): Promise<DraftId | null> => {
    end(true);
    await saving.current;
    // What is held back and stopped comes back as it was composed, to the last word.
    if (!isElsewhere) await keep(text);
    return id.current;
  };
  return {
    state,
    settle,
    saveApart: () => {
      id.current = null;
      revision.current = 0;
      kept.current = '';
      setState('changed');
    },
    goOn: () => {
      end(false);
    },
    discard: async () => {
      end(true);
      await saving.current;
      const left = id.current;
      if (left !== null)
        await api('DELETE /api/v1/drafts/:id', { id: left }).catch(() => undefined);
    },
  };
}
