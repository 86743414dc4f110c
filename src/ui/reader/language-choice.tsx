'use client';

import { useRouter } from 'next/navigation';
import { LANGUAGES, type Language } from '@/core/base/languages';
import { useWords } from '@/ui/words/use-words';

/** A year, in s. */
const CHOICE_LASTS = 31_536_000;

/** Each language by its own name. */
const NAMES: Readonly<Record<Language, string>> = {
  en: 'English',
  de: 'Deutsch',
  fr: 'Français',
  es: 'Español',
  ja: '日本語',
};

function keepChoice(language: Language): void {
  document.cookie = `embargo-language=${language}; path=/; max-age=${String(CHOICE_LASTS)}; samesite=lax`;
}

/** In which language the reader speaks, in this browser. */
export function LanguageChoice() {
  const router = useRouter();
  const { language, say } = useWords();
  const choose = (wanted: Language) => {
    keepChoice(wanted);
    // The page comes anew in its words; what was typed or opened stays.
    router.refresh();
  };
  return (
    <p className="languages quiet small" role="group" aria-label={say('language')}>
      {LANGUAGES.map((each) => (
        <button
          key={each}
          type="button"
          lang={each}
          className="plain-link"
          aria-pressed={each === language}
          onClick={() => {
            choose(each);
          }}
        >
          {NAMES[each]}
        </button>
      ))}
    </p>
  );
}
