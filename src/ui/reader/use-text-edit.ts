'use client';

import { useCallback, useState } from 'react';
import type { OpenResult } from '@/contracts/reader';
import type { OwnRevision } from '@/contracts/own-revision';
import { decodeText } from '@/core/content/decode-text';
import { isTextKind } from '@/core/content/media-types';
import { sentenceOf } from '@/ui/http/call';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';
import { readerFetch } from '@/ui/reader/reader-call';
import { sendRevision } from '@/ui/reader/send-revision';
import { useWords } from '@/ui/words/use-words';

type Opened = OpenResult & { readonly outcome: 'granted' };

/** Larger texts are changed in a program of their own. */
const MOST_BYTES = 2 << 20;

export type TextEdit = {
  /** Whether the document is text that this person may change and send back. */
  readonly isOffered: boolean;
  /** The text as it stands in the editor; null: it is not being changed. */
  readonly text: string | null;
  readonly isChanged: boolean;
  readonly isBusy: boolean;
  readonly problem: string | null;
  readonly begin: () => Promise<void>;
  readonly change: (text: string) => void;
  readonly discard: () => void;
  /** Sends it back. */
  readonly send: (note: string) => Promise<void>;
};

/** An editor keeps lines apart by one character; the file gets back what it had. */
function withLineEnds(text: string, original: string): string {
  return original.includes('\r\n') ? text.replaceAll('\n', '\r\n') : text;
}

/** Changing a text in the browser: it is fetched as a kept copy is, and sent back as a changed file is. */
export function useTextEdit(
  { licence, rights, file }: Opened,
  onRefused: OnRefused,
  onSent: (revisions: readonly OwnRevision[]) => void,
): TextEdit {
  const { say } = useWords();
  const [text, setText] = useState<string | null>(null);
  const [original, setOriginal] = useState('');
  const [isBusy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const working = useCallback(
    async (work: () => Promise<void>) => {
      setBusy(true);
      setProblem(null);
      try {
        await work();
      } catch (error) {
        if (error instanceof RefusedError) onRefused(error.reason, error.at);
        else setProblem(sentenceOf(error));
      } finally {
        setBusy(false);
      }
    },
    [onRefused],
  );
  const shown = original.replaceAll('\r\n', '\n');
  return {
    isOffered: rights.revise.granted && rights.keep.granted && isTextKind(file.kind),
    text,
    isChanged: text !== null && text !== shown,
    isBusy,
    problem,
    begin: () =>
      working(async () => {
        const path = `/api/v1/reader/licences/${licence}/keep`;
        const answer = await readerFetch('POST', path, {}, null);
        const bytes = new Uint8Array(await answer.arrayBuffer());
        if (bytes.length > MOST_BYTES) {
          setProblem(say('revise.textTooLarge'));
          return;
        }
        const found = decodeText(bytes);
        setOriginal(found);
        setText(found.replaceAll('\r\n', '\n'));
      }),
    change: setText,
    discard: () => {
      setText(null);
      setProblem(null);
    },
    send: (note) =>
      working(async () => {
        if (text === null) return;
        const changed = new File([withLineEnds(text, original)], file.name, { type: file.kind });
        onSent(await sendRevision(licence, changed, note));
        setText(null);
      }),
  };
}
