'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { DEFAULT_LANGUAGE, type Language } from '@/core/base/languages';
import { en } from '@/words/reader/en';
import type { ReaderMessages } from '@/words/reader/reader-messages';
import { readerWords, type SayReader } from '@/words/reader/reader-words';

type Words = { readonly language: Language; readonly say: SayReader };

// Staff see the same pages in English, and have no provider.
const Spoken = createContext<Words>({
  language: DEFAULT_LANGUAGE,
  say: readerWords(DEFAULT_LANGUAGE, en),
});

/** Gives everything within the words of one language. */
export function WordsProvider({
  language,
  messages,
  children,
}: {
  readonly language: Language;
  readonly messages: ReaderMessages;
  readonly children: ReactNode;
}) {
  const words = useMemo(
    () => ({ language, say: readerWords(language, messages) }),
    [language, messages],
  );
  return <Spoken value={words}>{children}</Spoken>;
}

/** The language of the person at the screen, and what says the reader's messages in it. */
export function useWords(): Words {
  return useContext(Spoken);
}
