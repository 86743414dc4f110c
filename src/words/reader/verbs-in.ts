import type { Language } from '@/core/base/languages';
import type { Right } from '@/core/policy/rights';
import { localeOf, type SayReader } from '@/words/reader/reader-words';

/** Rights as a language lists them: `read and print`, `lesen und drucken`. */
export function verbsIn(language: Language, say: SayReader, rights: readonly Right[]): string {
  return new Intl.ListFormat(localeOf(language), { type: 'conjunction' }).format(
    rights.map((right) => say(`rights.verbs.${right}`)),
  );
}
