/** Languages in which recipients are spoken and written to (BCP 47). */
export const LANGUAGES = ['en', 'de', 'fr', 'es', 'ja'] as const;
export type Language = (typeof LANGUAGES)[number];

/** For a recipient of whom no language is known. */
export const DEFAULT_LANGUAGE: Language = 'en';

function known(tag: string): Language | null {
  const primary = tag.split('-')[0]?.toLowerCase();
  return LANGUAGES.find((language) => language === primary) ?? null;
}

/** The language for somebody whose tag (BCP 47) may be any or none. */
export function languageOf(tag: string | null): Language {
  return known(tag ?? '') ?? DEFAULT_LANGUAGE;
}

/** Of these tags, the first that there is a language of ours for; `null`: none. */
export function firstLanguage(tags: readonly (string | null)[]): Language | null {
  return tags.map((tag) => known(tag ?? '')).find((language) => language !== null) ?? null;
}

/**
 * The tags that a browser prefers, the dearest first (RFC 9110, section 12.5.4); those that it
 * refuses (`q=0`), and `*`, are left out.
 */
export function acceptedTags(header: string | null): string[] {
  return (header ?? '')
    .split(',')
    .map((part) => {
      const [tag = '', ...parameters] = part.split(';').map((text) => text.trim());
      const quality = parameters.find((text) => text.startsWith('q='));
      return { tag, quality: quality === undefined ? 1 : Number(quality.slice(2)) };
    })
    .filter(({ tag, quality }) => tag !== '' && tag !== '*' && quality > 0)
    .sort((one, other) => other.quality - one.quality)
    .map(({ tag }) => tag);
}
