import { expect, test } from 'vitest';
import type { Terms } from '@/core/policy/rights';
import { termsSets } from '@/ui/compose/terms-sets';
import type { RecipientDraft } from '@/ui/recipients/use-recipients';

const COMMON: Terms = { rights: ['read'], from: null, until: 1, prints: null };
const KEEPS: Terms = {
  rights: ['read', 'copy', 'print', 'keep'],
  from: null,
  until: null,
  prints: null,
};
const NOBODY = { groups: [], domains: [], openLink: false };
const person = (name: string, terms: Terms | null = null): RecipientDraft => ({
  address: `${name}@yard.example`,
  name: '',
  organisation: '',
  terms,
  check: null,
});

test('everybody with the common terms is one line, everybody else is named with theirs', () => {
  expect(termsSets([person('a'), person('b'), person('c', KEEPS)], NOBODY, COMMON)).toEqual([
    { terms: COMMON, whom: ['2 people'] },
    { terms: KEEPS, whom: ['c@yard.example'] },
  ]);
});

test('where everybody has terms of their own, the common ones are nobody’s and are not shown', () => {
  expect(termsSets([person('a', KEEPS), person('b', KEEPS)], NOBODY, COMMON)).toEqual([
    { terms: KEEPS, whom: ['a@yard.example, b@yard.example'] },
  ]);
});

test('own terms that come to the same are the common ones', () => {
  expect(termsSets([person('a'), person('b', { ...COMMON })], NOBODY, COMMON)).toEqual([
    { terms: COMMON, whom: ['2 people'] },
  ]);
});

test('domains and links have the common terms', () => {
  expect(
    termsSets(
      [person('c', KEEPS)],
      { groups: [], domains: [{ domain: '@yard.example', check: null }], openLink: true },
      COMMON,
    )[0],
  ).toEqual({ terms: COMMON, whom: ['everyone at yard.example', 'anyone with the link'] });
});
