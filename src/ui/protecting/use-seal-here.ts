import { useEffect, useRef, useState } from 'react';
import type { FileFound } from '@/contracts/local-document';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { referenceFrom, titleFrom } from '@/core/content/names';
import { CallError, sentenceOf } from '@/ui/http/call';
import { SealFailure, lookHere, sealHere } from '@/ui/protecting/seal-file';

type Chosen = {
  readonly file: File;
  readonly found: FileFound;
  readonly title: string;
  readonly reference: string;
};
export type SealState =
  | { readonly kind: 'empty'; readonly problem: string | null }
  | { readonly kind: 'looking' }
  | (Chosen & { readonly kind: 'chosen'; readonly problem: string | null })
  | (Chosen & { readonly kind: 'sealing'; readonly sealed: number })
  | { readonly kind: 'done'; readonly reference: string; readonly made: File };

const WRONG: Readonly<Record<string, string>> = {
  EMPTY_FILE: 'This file is empty.',
  PROTECTED_ALREADY: 'This file is protected already. Use the document that is in it.',
  NOT_OF_ITS_NAME: 'What this file holds is not what its name says.',
  FILE_DAMAGED: 'This file was changed or taken away while it was read. Choose it again.',
  PDF_DAMAGED: 'This PDF is damaged and cannot be opened.',
  PDF_LOCKED: 'This PDF asks for a password. Save it without one and choose it again.',
  NO_ROOM: 'This browser has no room for the encrypted file. Make room on the disk and try again.',
  STOPPED: 'Stopped: nothing was made.',
};

function wordsOf(error: unknown): string {
  if (error instanceof CallError) return sentenceOf(error);
  const code = error instanceof SealFailure ? error.code : '';
  return WRONG[code] ?? 'This file could not be encrypted in this browser. Nothing was made.';
}

/** One file that is encrypted on this machine, from its choice to its protected file. */
export function useSealHere(
  taken: readonly string[],
  folderId: FolderId | null,
  onProtected: (reference: string) => void,
) {
  const [state, setState] = useState<SealState>({ kind: 'empty', problem: null });
  const stopping = useRef(new AbortController());
  useEffect(
    () => () => {
      stopping.current.abort();
    },
    [],
  );
  const look = async (file: File) => {
    stopping.current = new AbortController();
    setState({ kind: 'looking' });
    try {
      const found = await lookHere(file, stopping.current.signal);
      const title = titleFrom(file.name);
      setState({
        kind: 'chosen',
        file,
        found,
        title,
        reference: referenceFrom(file.name, new Set(taken)),
        problem: null,
      });
    } catch (error) {
      setState({ kind: 'empty', problem: wordsOf(error) });
    }
  };
  const seal = async (chosen: Chosen, markingId: MarkingId | null) => {
    const { file, found, title, reference } = chosen;
    const { signal } = stopping.current;
    setState({ ...chosen, kind: 'sealing', sealed: 0 });
    try {
      const made = await sealHere(
        file,
        found,
        { title, reference, folderId, markingId },
        {
          signal,
          onSealed: (sealed) => {
            setState({ ...chosen, kind: 'sealing', sealed });
          },
        },
      );
      setState({ kind: 'done', reference, made: made.file });
      onProtected(reference);
    } catch (error) {
      stopping.current = new AbortController();
      setState({ ...chosen, kind: 'chosen', problem: wordsOf(error) });
    }
  };
  return {
    state,
    choose: (file: File) => void look(file),
    name: (named: Partial<Pick<Chosen, 'title' | 'reference'>>) => {
      setState((before) => (before.kind === 'chosen' ? { ...before, ...named } : before));
    },
    go: (marking: MarkingId | null) => {
      if (state.kind === 'chosen') void seal(state, marking);
    },
    stop: () => {
      stopping.current.abort();
    },
    again: () => {
      setState({ kind: 'empty', problem: null });
    },
  };
}
