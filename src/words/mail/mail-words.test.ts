// Mail in every language: nothing is missing, and every message says what it has to.
import { describe, expect, test } from 'vitest';
import { MAIL_LANGUAGES, mailLanguage } from '@/core/base/languages';
import { mailMessages, mailWords } from '@/words/mail/mail-words';

type Nested = { readonly [key: string]: string | Nested };

function keysOf(nested: Nested, before = ''): string[] {
  return Object.entries(nested).flatMap(([key, value]) =>
    typeof value === 'string' ? [`${before}${key}`] : keysOf(value, `${before}${key}.`),
  );
}

function textAt(nested: Nested, key: string): string {
  const found = key
    .split('.')
    .reduce<string | Nested>(
      (at, part) => (typeof at === 'string' ? at : (at[part] ?? '')),
      nested,
    );
  return typeof found === 'string' ? found : '';
}

/** The names of what is filled in: `{title}`, `{count, plural, …}`. */
function filledIn(text: string): string[] {
  return [
    ...new Set(
      [...text.matchAll(/(?<!(?:one|other|=1) )\{(\w+)(?=[},])/g)].map(([, name = '']) => name),
    ),
  ].sort();
}

const keys = keysOf(mailMessages.en);
const others = MAIL_LANGUAGES.filter((language) => language !== 'en');

describe.each(others)('in %s', (language) => {
  test('every message is there, and in other words than the English', () => {
    expect(keysOf(mailMessages[language])).toEqual(keys);
    const same = keys.filter(
      (key) => textAt(mailMessages[language], key) === textAt(mailMessages.en, key),
    );
    // `Document {reference}` is French as well.
    expect(same.filter((key) => key !== 'sent.hiddenTitle')).toEqual([]);
  });

  test.each(keys)('%s says all that the English says, for one and for several', (key) => {
    const english = filledIn(textAt(mailMessages.en, key));
    expect(filledIn(textAt(mailMessages[language], key))).toEqual(english);
    for (const count of [1, 2, 50]) {
      const values = Object.fromEntries(
        english.map((name) => [name, name === 'count' ? count : `‹${name}›`]),
      );
      const said = (mailWords(language) as (key: string, values: object) => string)(key, values);
      expect(said).not.toMatch(/[{}#]/);
      const told = english.filter((name) => said.includes(`‹${name}›`));
      expect(told).toEqual(english.filter((name) => isSaid(key, name, count)));
    }
  });
});

/** Counts choose words; the subject for several names none of them in most languages. */
function isSaid(key: string, name: string, count: number): boolean {
  return name !== 'count' && !(key === 'ending.subject' && count > 1);
}

test('a language is found by its tag, and English stands in for those there are none for', () => {
  expect(['de', 'de-CH', 'FR', 'ja-JP', 'es-419'].map(mailLanguage)).toEqual([
    'de',
    'de',
    'fr',
    'ja',
    'es',
  ]);
  expect([null, '', 'nb-NO', 'deu'].map(mailLanguage)).toEqual(['en', 'en', 'en', 'en']);
});

test('what was filled in is never read as a message itself', () => {
  const title = "{count, plural, one {x}} '<b>' #";
  expect(mailWords('de')('sent.titleNoEnd', { title })).toBe(`${title}, ohne Ende`);
});
