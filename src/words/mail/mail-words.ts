import { createTranslator } from 'use-intl/core';
import { LANGUAGES, type Language } from '@/core/base/languages';
import type { InAnyWords } from '@/words/in-any-words';
import { de } from '@/words/mail/de';
import { en } from '@/words/mail/en';
import { es } from '@/words/mail/es';
import { fr } from '@/words/mail/fr';
import { ja } from '@/words/mail/ja';

/** What a catalogue of mail has to say: every message there is in English. */
export type MailMessages = InAnyWords<typeof en>;

export const mailMessages: Readonly<Record<Language, MailMessages>> = { en, de, fr, es, ja };

function translator(language: Language) {
  return createTranslator<typeof en>({
    locale: language === 'en' ? 'en-GB' : language,
    messages: mailMessages[language] as typeof en,
    // Nothing goes out with the name of a message in place of its words.
    onError: (error) => {
      throw error;
    },
  });
}

const translators = new Map(LANGUAGES.map((language) => [language, translator(language)] as const));

/** Says the messages of recipients' mail in one language. */
export function mailWords(language: Language): ReturnType<typeof translator> {
  return translators.get(language) ?? translator(language);
}
