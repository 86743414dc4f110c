'use client';

import { useCallback, useEffect, useMemo, useState } from 'react';
import type { CommentView } from '@/contracts/comments';
import type { CommentId, LicenceId } from '@/core/base/ids';
import { threadsOf, type CommentDraft, type Comments } from '@/ui/comments/comments-state';
import { sentenceOf } from '@/ui/http/call';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';
import { COMMENTS_HANDED_IN } from '@/ui/reader/comments-handed-in';
import { readerFetch } from '@/ui/reader/reader-call';

const NONE: readonly CommentView[] = [];

/** The comments on what is open, and the one that is being written. */
export function useComments(licence: LicenceId, may: boolean, onRefused: OnRefused): Comments {
  const [all, setAll] = useState<readonly CommentView[]>(NONE);
  const [draft, setDraft] = useState<CommentDraft | null>(null);
  const [isPlacing, setPlacing] = useState(false);
  const [active, setActive] = useState<CommentId | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const base = `/api/v1/reader/licences/${licence}/comments`;

  const ask = useCallback(
    async (method: 'GET' | 'POST', path: string, body?: unknown): Promise<boolean> => {
      setBusy(true);
      setProblem(null);
      try {
        const answer = await readerFetch(method, path, body, null);
        setAll(((await answer.json()) as { readonly comments: readonly CommentView[] }).comments);
        return true;
      } catch (error) {
        if (error instanceof RefusedError) onRefused(error.reason, error.at);
        else setProblem(sentenceOf(error));
        return false;
      } finally {
        setBusy(false);
      }
    },
    [onRefused],
  );

  useEffect(() => {
    let isCurrent = true;
    const fetchAll = () => {
      readerFetch('GET', base, undefined, null)
        .then((answer) => answer.json())
        .then(
          (found: { readonly comments: readonly CommentView[] }) => {
            if (isCurrent) setAll(found.comments);
          },
          // Without comments the pages are read all the same.
          () => undefined,
        );
    };
    fetchAll();
    window.addEventListener(COMMENTS_HANDED_IN, fetchAll);
    return () => {
      isCurrent = false;
      window.removeEventListener(COMMENTS_HANDED_IN, fetchAll);
    };
  }, [base, may]);

  const threads = useMemo(() => threadsOf(all), [all]);
  return {
    all,
    threads,
    may,
    isPlacing,
    setPlacing,
    draft,
    setDraft,
    active,
    setActive,
    problem,
    busy,
    save: async () => {
      // What is written stays until it is kept: a right that ends in between takes no words away.
      if (draft !== null && (await ask('POST', base, { ...draft, answers: null }))) setDraft(null);
    },
    answer: (to, text) =>
      ask('POST', base, { page: to.page, place: to.place, text, answers: to.id }),
    change: (id, change) => ask('POST', `${base}/${id}`, { change }),
  };
}
