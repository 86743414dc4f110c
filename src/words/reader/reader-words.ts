import { createTranslator } from 'use-intl/core';
import type { Language } from '@/core/base/languages';
import type { en } from '@/words/reader/en';
import type { ReaderMessages } from '@/words/reader/reader-messages';

/** Of English, the one that writes its days before its months. */
export function localeOf(language: Language): string {
  return language === 'en' ? 'en-GB' : language;
}

function translator(language: Language, messages: ReaderMessages) {
  return createTranslator<typeof en>({
    locale: localeOf(language),
    messages: messages as typeof en,
    // No name of a message ever stands in the place of its words.
    onError: (error) => {
      throw error;
    },
  });
}

export type SayReader = ReturnType<typeof translator>;

/** Says the messages of the reader in the language they are in. */
export function readerWords(language: Language, messages: ReaderMessages): SayReader {
  return translator(language, messages);
}
