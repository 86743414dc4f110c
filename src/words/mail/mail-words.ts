import { createTranslator } from 'use-intl/core';
import { MAIL_LANGUAGES, type MailLanguage } from '@/core/base/languages';
import { de } from '@/words/mail/de';
import { en } from '@/words/mail/en';
import { es } from '@/words/mail/es';
import { fr } from '@/words/mail/fr';
import { ja } from '@/words/mail/ja';

/** The same messages, in any words. */
type InAnyWords<T> = {
  readonly [K in keyof T]: T[K] extends string ? string : InAnyWords<T[K]>;
};

/** What a catalogue of mail has to say: every message there is in English. */
export type MailMessages = InAnyWords<typeof en>;

export const mailMessages: Readonly<Record<MailLanguage, MailMessages>> = { en, de, fr, es, ja };

function translator(language: MailLanguage) {
  return createTranslator<typeof en>({
    locale: language === 'en' ? 'en-GB' : language,
    messages: mailMessages[language] as typeof en,
    // Nothing goes out with the name of a message in place of its words.
    onError: (error) => {
      throw error;
    },
  });
}

const translators = new Map(
  MAIL_LANGUAGES.map((language) => [language, translator(language)] as const),
);

/** Says the messages of recipients' mail in one language. */
export function mailWords(language: MailLanguage): ReturnType<typeof translator> {
  return translators.get(language) ?? translator(language);
}
