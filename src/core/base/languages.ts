/** Languages in which recipients are spoken to (BCP 47). */
export type Language = 'en';

/** For a recipient who has chosen none. */
export const DEFAULT_LANGUAGE: Language = 'en';

/** Languages in which recipients are written to. */
export const MAIL_LANGUAGES = ['en', 'de', 'fr', 'es', 'ja'] as const;
export type MailLanguage = (typeof MAIL_LANGUAGES)[number];

/** The language to write in to somebody whose tag (BCP 47) may be any or none. */
export function mailLanguage(tag: string | null): MailLanguage {
  const primary = tag?.split('-')[0]?.toLowerCase();
  return MAIL_LANGUAGES.find((language) => language === primary) ?? 'en';
}
