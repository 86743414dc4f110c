'use client';

import { useLayoutEffect, type ReactNode } from 'react';
import type { Language } from '@/core/base/languages';
import { speakTo } from '@/ui/http/call';
import { WordsProvider } from '@/ui/words/use-words';
import type { ReaderMessages } from '@/words/reader/reader-messages';

/** A page in one language: its words, what its calls say when they fail, and in what the server answers. */
export function SpokenLanguage({
  language,
  messages,
  children,
}: {
  readonly language: Language;
  readonly messages: ReaderMessages;
  readonly children: ReactNode;
}) {
  const { problems } = messages;
  // Before any effect of what is within: the first call is in this language as well.
  useLayoutEffect(() => {
    document.documentElement.lang = language;
    speakTo({ language, ...problems });
  }, [language, problems]);
  return (
    <WordsProvider language={language} messages={messages}>
      {children}
    </WordsProvider>
  );
}
