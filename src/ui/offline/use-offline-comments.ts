'use client';

import { useCallback, useEffect, useMemo, useState } from 'react';
import type { CommentView } from '@/contracts/comments';
import { newId, type CommentId } from '@/core/base/ids';
import { timeWithoutService } from '@/core/own-machine/kept-licence';
import { threadsOf, type CommentDraft, type Comments } from '@/ui/comments/comments-state';
import {
  forgetComment,
  keepComment,
  keptComments,
  type KeptComment,
} from '@/ui/own-machine/kept-comments';
import type { KeptLicence } from '@/ui/own-machine/kept-licences';
import { useWords } from '@/ui/words/use-words';

const NONE: readonly KeptComment[] = [];

/** What is being written, and about which version. */
type Begun = { readonly of: string | null; readonly draft: CommentDraft };

function viewOf({ id, page, place, text, madeAt, address: by }: KeptComment): CommentView {
  const never = { changedAt: null, resolvedAt: null };
  return {
    ...{ id, page, place, text, madeAt, by, ...never },
    ...{ version: 0, answers: null, byStaff: false, own: true },
  };
}

/** What was written here without a connection; it is handed in once there is one. */
export function useOfflineComments(kept: KeptLicence | null): Comments {
  const { say } = useWords();
  const [written, setWritten] = useState<readonly KeptComment[]>(NONE);
  const [begun, setBegun] = useState<Begun | null>(null);
  const [isPlacing, setPlacing] = useState(false);
  const [active, setActive] = useState<CommentId | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const version = kept?.version ?? null;
  // What was begun on one document never comes to stand on another; on the list it can be copied.
  const draft = version === null || begun?.of === version ? (begun?.draft ?? null) : null;
  const setDraft = (next: CommentDraft | null): void => {
    setBegun(next === null ? null : { of: version, draft: next });
  };

  const address = kept?.about.address ?? '';
  const writtenHere = useCallback(async () => {
    const all = await keptComments();
    return all.filter(
      (each) => each.version === version && each.address === address && !each.isRefused,
    );
  }, [version, address]);
  useEffect(() => {
    writtenHere().then(setWritten, () => undefined);
  }, [writtenHere]);

  /** What cannot be kept stays where it is written. @returns whether it is kept */
  const act = async (change: () => Promise<void>): Promise<boolean> => {
    setBusy(true);
    setProblem(null);
    try {
      await change();
      setWritten(await writtenHere());
      return true;
    } catch {
      setProblem(say('offline.commentNotKept'));
      return false;
    } finally {
      setBusy(false);
    }
  };

  const all = useMemo(() => written.map(viewOf), [written]);
  const threads = useMemo(() => threadsOf(all), [all]);
  return {
    all,
    threads,
    may: kept?.about.mayComment === true,
    isPlacing,
    setPlacing,
    draft,
    setDraft,
    active,
    setActive,
    problem,
    busy,
    save: async () => {
      if (draft === null || kept === null) return;
      const { licence, about } = kept;
      const isKept = await act(() =>
        keepComment({
          ...draft,
          id: newId('comment', (length) => crypto.getRandomValues(new Uint8Array(length))),
          licence,
          version: kept.version,
          document: about.document,
          address: about.address,
          madeAt: timeWithoutService(kept, Date.now()),
          isRefused: false,
        }),
      );
      if (isKept) setDraft(null);
    },
    answer: null,
    change: (id, change) =>
      act(async () => {
        if ('removed' in change) await forgetComment(id);
      }),
  };
}
