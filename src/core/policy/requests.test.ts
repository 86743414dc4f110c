import { describe, expect, test } from 'vitest';
import { fc, test as prop } from '@fast-check/vitest';
import { answeredTerms, stateAfter } from '@/core/policy/requests';
import { OFFERED_RIGHTS, brokenDependencies, type Terms } from '@/core/policy/rights';

const nothing = { right: null, until: null, prints: null };

describe('an answer to a request', () => {
  test.each([
    ['all of it', { right: null, until: 100 }, { ...nothing, until: 100 }, 'given'],
    ['more than asked', { right: null, until: 100 }, { ...nothing, until: 200 }, 'given'],
    ['less time', { right: null, until: 100 }, { ...nothing, until: 50 }, 'given-in-part'],
    ['the right', { right: 'copy', until: null }, { ...nothing, right: 'copy' }, 'given'],
    [
      'the right for a while',
      { right: 'copy', until: null },
      { ...nothing, right: 'copy', until: 60 },
      'given',
    ],
    [
      'one print',
      { right: 'print', until: null },
      { right: 'print', until: null, prints: 1 },
      'given-in-part',
    ],
    [
      'time without the right',
      { right: 'keep', until: 100 },
      { ...nothing, until: 100 },
      'given-in-part',
    ],
    ['nothing', { right: 'keep', until: 100 }, nothing, 'declined'],
  ] as const)('%s', (_name, ask, answer, state) => {
    expect(stateAfter(ask, answer)).toBe(state);
  });

  test('adds prints to those that are left, and lifts the limit where it gives without one', () => {
    const terms: Terms = { rights: ['read', 'print'], from: null, until: 10, prints: 2 };
    expect(answeredTerms(terms, { right: 'print', until: null, prints: 1 })).toMatchObject({
      prints: 3,
      until: 10,
    });
    expect(answeredTerms(terms, { right: 'print', until: null, prints: null })).toMatchObject({
      prints: null,
    });
    expect(
      answeredTerms(
        { ...terms, rights: ['read'], prints: null },
        { right: 'print', until: null, prints: 1 },
      ),
    ).toMatchObject({ rights: ['read', 'print'], prints: 1 });
  });

  const terms = fc
    .record({
      rights: fc
        .subarray([...OFFERED_RIGHTS])
        .map((rights) => [...new Set(['read' as const, ...rights])]),
      from: fc.constant(null),
      until: fc.option(fc.nat()),
      prints: fc.option(fc.integer({ min: 1, max: 9 })),
    })
    .filter((each) => brokenDependencies(each).length === 0);
  const answer = fc.record({
    right: fc.option(fc.constantFrom(...OFFERED_RIGHTS)),
    until: fc.option(fc.nat()),
    prints: fc.option(fc.integer({ min: 1, max: 9 })),
  });
  prop.prop([terms, answer])(
    'never takes a right away, and leaves terms that can stand',
    (before, given) => {
      const after = answeredTerms(before, given);
      expect(after.rights).toEqual(
        expect.arrayContaining([...before.rights, ...(given.right === null ? [] : [given.right])]),
      );
      expect(brokenDependencies(after)).toEqual([]);
    },
  );
});
