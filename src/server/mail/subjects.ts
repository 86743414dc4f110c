import type { Language } from '@/core/base/languages';
import { mailWords } from '@/words/mail/mail-words';

/** What a document is called where its title is not told. */
export function hiddenTitle(reference: string, language: Language): string {
  return mailWords(language)('sent.hiddenTitle', { reference });
}

/** What the mail about something passed on is called. */
export function passedOnSubject(subject: string, language: Language): string {
  return mailWords(language)('sent.passedOn', { subject });
}

/** What dispatches that somebody makes by another act are called. */
export const subjects = {
  given: (names: string) => `Given to ${names}`,
  answer: (title: string) => `Answer about ${title}`,
} as const;
