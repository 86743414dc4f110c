// The catalogues in every language: nothing is missing, and every message says what it has to.
import { createTranslator } from 'use-intl/core';
import { describe, expect, test } from 'vitest';
import { acceptedTags, firstLanguage, LANGUAGES, languageOf } from '@/core/base/languages';
import { mailMessages } from '@/words/mail/mail-words';
import { readerCatalogues } from '@/words/reader/reader-catalogues';
import { recipientProblemMessages } from '@/words/recipient-problems/recipient-problems';

type Nested = { readonly [key: string]: string | Nested };

function messagesOf(nested: Nested, before = ''): Map<string, string> {
  return new Map(
    Object.entries(nested).flatMap(([key, value]) =>
      typeof value === 'string'
        ? [[`${before}${key}`, value] as const]
        : [...messagesOf(value, `${before}${key}.`)],
    ),
  );
}

/** What is filled in, and what is set apart: `{title}`, `{count, plural, …}`, `<b>…</b>`. */
function filledIn(message: string): string[] {
  const names = [...message.matchAll(/(?<!(?:one|other|=\d) )\{(\w+)(?=[},])/g)];
  const tags = [...message.matchAll(/<(\w+)>/g)];
  return [
    ...new Set([
      ...names.map(([, name = '']) => name),
      ...tags.map(([, name = '']) => `<${name}>`),
    ]),
  ].sort();
}

/** The same in English as well: names of things that are called alike, and what is only a sign. */
const ALIKE: Readonly<Record<string, readonly string[]>> = {
  de: ['prove.code'],
  fr: ['sent.hiddenTitle', 'pages.page', 'pages.pageField'],
};

const CATALOGUES = {
  mail: mailMessages,
  reader: readerCatalogues,
  'recipient problems': recipientProblemMessages,
} as const;
const others = LANGUAGES.filter((language) => language !== 'en');

describe.each(Object.entries(CATALOGUES))('the catalogue of %s', (_name, catalogue) => {
  const english = messagesOf(catalogue.en);

  test.each(others)('has every message in %s, and in other words than the English', (language) => {
    const messages = messagesOf(catalogue[language]);
    expect([...messages.keys()]).toEqual([...english.keys()]);
    const same = [...english].filter(
      ([key, message]) =>
        messages.get(key) === message &&
        /[a-z]{3}/i.test(message.replaceAll(/\{[^}]*\}|<[^>]*>/g, '')) &&
        !(ALIKE[language]?.includes(key) ?? false),
    );
    expect(same.map(([key]) => key)).toEqual([]);
  });

  test.each(others)('fills in and sets apart in %s what the English does', (language) => {
    const messages = messagesOf(catalogue[language]);
    const different = [...english].filter(
      ([key, message]) => filledIn(messages.get(key) ?? '').join() !== filledIn(message).join(),
    );
    expect(different.map(([key]) => key)).toEqual([]);
  });

  test.each(LANGUAGES)(
    'says in %s all that is filled in, for none, one and several',
    (language) => {
      const say = sayer(language, catalogue[language]);
      const unsaid = [...english].flatMap(([key, message]) =>
        [0, 1, 2, 50].flatMap((count) => {
          const parts = filledIn(message);
          const said = say(key, valuesFor(message, parts, count));
          // The subject for several names none of them.
          const isNamed = key !== 'ending.subject' || count === 1;
          const wanted = parts.filter((part) => isText(message, part) && isNamed);
          const isWhole = wanted.every((part) => said.includes(`‹${part}›`)) && !/[{}#]/.test(said);
          return isWhole ? [] : [`${key} for ${String(count)}: ${said}`];
        }),
      );
      expect(unsaid).toEqual([]);
    },
  );
});

type Values = Readonly<Record<string, string | number | ((text: string) => string)>>;

function sayer(language: string, messages: Nested): (key: string, values: Values) => string {
  const translator = createTranslator({
    locale: language,
    messages,
    onError: (error) => {
      throw error;
    },
  }) as unknown as { readonly markup: (key: string, values: Values) => string };
  return (key, values) => translator.markup(key, values);
}

function valuesFor(message: string, parts: readonly string[], count: number): Values {
  return Object.fromEntries(
    parts.map((part): [string, Values[string] & {}] => {
      if (part.startsWith('<')) return [part.slice(1, -1), (text: string) => `⟨${text}⟩`];
      return [part, isText(message, part) ? `‹${part}›` : count];
    }),
  );
}

/** Tags set apart, and numbers choose words: the rest is said as it is. */
function isText(message: string, part: string): boolean {
  return !part.startsWith('<') && !message.includes(`{${part}, plural,`);
}

test('a language is found by its tag, and English stands in for those there are none for', () => {
  expect(['de', 'de-CH', 'FR', 'ja-JP', 'es-419'].map(languageOf)).toEqual([
    'de',
    'de',
    'fr',
    'ja',
    'es',
  ]);
  expect([null, '', 'nb-NO', 'deu'].map(languageOf)).toEqual(['en', 'en', 'en', 'en']);
});

test('what a browser prefers is taken in its order, what it refuses is not taken', () => {
  expect(acceptedTags('nb, de-AT;q=0.7, fr;q=0.9, es;q=0, *;q=0.1')).toEqual(['nb', 'fr', 'de-AT']);
  expect(firstLanguage(acceptedTags('nb, de-AT;q=0.7, fr;q=0.9'))).toBe('fr');
  expect(firstLanguage(acceptedTags('nb;q=1, sv'))).toBeNull();
  expect(acceptedTags(null)).toEqual([]);
  expect(acceptedTags(';;q=,,x;q=y')).toEqual([]);
});
