import { fc, test } from '@fast-check/vitest';
import { describe, expect, it } from 'vitest';
import {
  passOnRefusal,
  passedOnTerms,
  type PassOnHeld,
  type PassOnWish,
} from '@/core/policy/passing-on';
import { RIGHTS, brokenDependencies, type Terms } from '@/core/policy/rights';

const END = 1_800_000_000_000;
const terms: Terms = {
  rights: ['read', 'print', 'pass-on'],
  from: null,
  until: END,
  prints: 3,
  conditions: {
    networks: ['192.0.2.0/24'],
    passOn: { people: 2, domains: ['@yard.example'], steps: 2 },
  },
};
const held = (over: Partial<PassOnHeld> = {}): PassOnHeld => ({
  address: 'mira@yard.example',
  terms,
  printsLeft: 3,
  passedOn: 0,
  ...over,
});
const wish = (over: Partial<PassOnWish> = {}): PassOnWish => ({
  address: 'per@yard.example',
  rights: ['read'],
  until: END,
  ...over,
});

describe('passing on', () => {
  it('is for who has the right to it, within the people and domains that are listed', () => {
    expect(passOnRefusal(wish(), held())).toBeNull();
    expect(passOnRefusal(wish(), held({ terms: { ...terms, rights: ['read'] } }))).toBe(
      'not-given',
    );
    expect(passOnRefusal(wish(), held({ terms: { ...terms, conditions: {} } }))).toBe('not-given');
    expect(passOnRefusal(wish(), held({ passedOn: 2 }))).toBe('too-many');
    expect(passOnRefusal(wish({ address: 'x@sub.yard.example' }), held())).toBe('not-listed');
    expect(passOnRefusal(wish({ address: 'mira@yard.example' }), held())).toBe('themselves');
  });

  it('gives no right that is not held, and nothing for longer', () => {
    expect(passOnRefusal(wish({ rights: ['read', 'copy'] }), held())).toBe('more-rights');
    expect(passOnRefusal(wish({ rights: ['print'] }), held())).toBe('more-rights');
    expect(passOnRefusal(wish({ until: END + 1 }), held())).toBe('longer');
    expect(passOnRefusal(wish({ until: null }), held())).toBe('longer');
    expect(
      passOnRefusal(wish({ until: null }), held({ terms: { ...terms, until: null } })),
    ).toBeNull();
  });

  it('goes on for so many steps, and no further', () => {
    const once = passedOnTerms(wish({ rights: ['read', 'pass-on'] }), held());
    expect(once.conditions?.passOn).toEqual({ people: 2, domains: ['@yard.example'], steps: 1 });
    expect(
      passOnRefusal(
        wish({ address: 'ann@yard.example', rights: ['read', 'pass-on'] }),
        held({ address: 'per@yard.example', terms: once }),
      ),
    ).toBe('more-rights');
    const twice = passedOnTerms(
      wish({ address: 'ann@yard.example' }),
      held({ address: 'per@yard.example', terms: once }),
    );
    expect(twice).toEqual({
      rights: ['read'],
      from: null,
      until: END,
      prints: null,
      conditions: { networks: ['192.0.2.0/24'] },
    });
  });

  test.prop([
    fc.subarray([...RIGHTS]),
    fc.subarray([...RIGHTS]),
    fc.option(fc.integer({ min: 0, max: 5 })),
    fc.integer({ min: 0, max: 3 }),
    fc.option(fc.integer({ min: 1, max: 9 })),
  ])(
    'never comes to more than what it is passed on from, and can always stand',
    (wanted, own, printsLeft, steps, until) => {
      const from: Terms = {
        rights: own,
        from: null,
        until: until === null ? null : END + until,
        prints: printsLeft,
        conditions: { passOn: { people: 1, domains: null, steps } },
      };
      const given = passedOnTerms(
        { address: 'a@x.example', rights: wanted, until: END },
        held({ terms: from, printsLeft }),
      );
      expect(given.rights.filter((right) => !own.includes(right))).toEqual([]);
      expect(given.conditions?.passOn?.steps ?? 0).toBeLessThan(Math.max(1, steps));
      expect(brokenDependencies(given).filter(({ needs }) => needs !== 'read')).toEqual([]);
    },
  );
});
