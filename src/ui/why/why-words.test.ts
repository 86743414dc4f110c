import { describe, expect, it } from 'vitest';
import type { Explained, NamedChange, NamedReason } from '@/contracts/explain';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { RIGHTS, type Right } from '@/core/policy/rights';
import { differences, remedyOf, rightRule, ruleWords, verdictWords } from '@/ui/why/why-words';

const rule: NamedReason = {
  level: 'grant',
  subject: 'grt_a',
  setBy: 'stf_a',
  setAt: 0,
  changes: [],
  lastChange: null,
  ended: false,
  name: 'D-0002',
  setByName: 'Ida Roe',
};
function explained(over: Partial<Explained>, may: readonly Right[] = ['read']): Explained {
  return {
    now: 0,
    past: false,
    person: 'Mira',
    document: 'Lines',
    opens: true,
    reason: null,
    until: null,
    why: rule,
    ways: [],
    readingAids: false,
    rights: RIGHTS.map((right) => ({
      right,
      verdict: may.includes(right)
        ? { granted: true, grant: 'grt_a', printsLeft: right === 'print' ? 2 : null }
        : { granted: false, why: 'not-given', source: { level: 'grant', grant: 'grt_a' } },
      reason: rule,
    })),
    ...over,
  };
}
const compare = (first: Explained, then: Explained) =>
  differences(first, then, (moment) => `day ${String(moment)}`);

describe('reasons in words', () => {
  it('name the rule', () => {
    expect([
      ruleWords(rule),
      ruleWords({ ...rule, level: 'folder', name: 'Hull 412' }),
      ruleWords({ ...rule, level: 'organisation', name: 'the organisation' }),
      ruleWords({ ...rule, level: 'document', setBy: null, setAt: null }),
    ]).toEqual([
      'the grant of D-0002',
      'the ceiling of the folder Hull 412',
      'the ceiling of the organisation',
      'the document',
    ]);
    expect(
      rightRule(
        { granted: false, why: 'not-given', source: { level: 'grant', grant: 'grt_a' } },
        rule,
      ),
    ).toBe('D-0002 does not give it');
    expect(
      rightRule(
        { granted: false, why: 'above-ceiling', source: { level: 'folder', grant: null } },
        { ...rule, level: 'folder' },
      ),
    ).toBeNull();
  });

  it('say what would change it, and that all of it is needed', () => {
    const change: NamedChange = { kind: 'extend-grant', grant: 'grt_a', name: 'D-0002' };
    const ceiling = {
      level: 'folder',
      subject: 'fld_a',
      limits: NO_LIMITS,
      setBy: 'stf_a',
      setAt: 0,
    } as const;
    expect(remedyOf({ ...rule, changes: [change] })).toBe(
      'To change this: set a later end for the grant of D-0002.',
    );
    expect(
      remedyOf({
        ...rule,
        changes: [change, { kind: 'raise-ceiling', ceiling, limit: 'days', name: 'Hull 412' }],
      }),
    ).toBe(
      'To change this, both are needed: set a later end for the grant of D-0002 and raise ' +
        'the ceiling on days of the folder Hull 412.',
    );
    expect(remedyOf(rule)).toBe('Nothing can change it.');
  });

  it('count what is left', () => {
    expect(verdictWords('print', { granted: true, grant: 'grt_a', printsLeft: 1 })).toBe(
      'may print 1 more copy',
    );
    expect(verdictWords('keep', null)).toBe('may not keep a copy');
  });

  it('compare two answers, and find nothing between alike ones', () => {
    expect(compare(explained({}), explained({}))).toEqual([]);
    expect(compare(explained({ until: 3 }), explained({ until: 5 }, ['read', 'print']))).toEqual([
      'ends day 3 → ends day 5',
      'may not print → may print 2 more copies',
    ]);
    expect(compare(explained({}), explained({ opens: false, reason: 'expired' }))).toEqual([
      'can open it → cannot open it: access has ended',
    ]);
  });
});
