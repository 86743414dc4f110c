const names = new Intl.DisplayNames('en', { type: 'language' });

/** What a language is called in English, by its tag (BCP 47). */
export function languageName(tag: string): string {
  return names.of(tag) ?? tag;
}
