import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { changedOwn, pinned, termsWith } from '@/core/compose/own-terms';
import type { Conditions } from '@/core/policy/conditions';
import { RIGHTS, termsText, type Terms } from '@/core/policy/rights';

const conditions: fc.Arbitrary<Conditions | undefined> = fc.option(
  fc.record(
    {
      opens: fc.option(fc.integer({ min: 1, max: 9 })),
      countries: fc.option(fc.subarray(['NO', 'GB', 'IS'], { minLength: 1 })),
      captureDeterrent: fc.boolean(),
    },
    { requiredKeys: [] },
  ),
  { nil: undefined },
);
const anyTerms: fc.Arbitrary<Terms> = fc
  .record({
    rights: fc.subarray([...RIGHTS]),
    from: fc.option(fc.integer({ min: 0, max: 5 })),
    until: fc.option(fc.integer({ min: 5, max: 9 })),
    prints: fc.option(fc.integer({ min: 1, max: 3 })),
    conditions,
  })
  .map(({ conditions: set, prints, ...terms }) => ({
    ...terms,
    prints: terms.rights.includes('print') ? prints : null,
    ...(set === undefined ? {} : { conditions: set }),
  }));

describe('what is a row’s own', () => {
  prop.prop([anyTerms, anyTerms])('comes to the terms it was changed to', (common, wanted) => {
    const own = changedOwn({}, common, wanted, common);
    expect(termsText(termsWith(own, common))).toBe(termsText(wanted));
  });

  prop.prop([anyTerms, anyTerms, anyTerms])(
    'is left in place when what is common changes, and nothing else is',
    (common, wanted, later) => {
      const own = changedOwn({}, common, wanted, common);
      const after = termsWith(own, later);
      for (const right of RIGHTS) {
        const isOwn = wanted.rights.includes(right) !== common.rights.includes(right);
        expect(after.rights.includes(right)).toBe((isOwn ? wanted : later).rights.includes(right));
      }
      expect(after.until).toBe((wanted.until === common.until ? later : wanted).until);
    },
  );

  prop.prop([anyTerms, anyTerms])(
    'is nothing any more once it is changed back',
    (common, wanted) => {
      const own = changedOwn({}, common, wanted, common);
      const back = changedOwn(own, termsWith(own, common), common, common);
      expect(back).toEqual({});
    },
  );

  prop.prop([anyTerms, anyTerms])('holds whole terms against any others', (wanted, common) => {
    expect(termsText(termsWith(pinned(wanted), common))).toBe(termsText(wanted));
  });

  test('keeps values that were pinned when another of them is changed', () => {
    const common: Terms = { rights: ['read'], from: null, until: 9, prints: null };
    const own = pinned(common);
    const changed = changedOwn(own, common, { ...common, until: 5 }, common);
    expect(termsWith(changed, { ...common, rights: ['read', 'print'] })).toEqual({
      ...common,
      until: 5,
    });
  });
});
