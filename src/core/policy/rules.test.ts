import { describe, expect, it } from 'vitest';
import { WAYS, isLowered, judgeWays, waysOf, wholeRules, type Rule } from '@/core/policy/rules';

const rule = (way: Rule['way'], leave: Rule['leave']): Rule => ({
  way,
  leave,
  reason: '',
  setBy: 'stf_a',
  setAt: 1,
});
const names = (rules: readonly Rule[]) => rules.map(({ way }) => way);

describe('rules about ways of handing out', () => {
  it('are whole, whatever was decided, and off at first for what cannot be taken back', () => {
    expect(names(wholeRules([rule('domain', 'forbidden')]))).toEqual([...WAYS]);
    expect(
      wholeRules([])
        .filter(({ leave }) => leave === 'forbidden')
        .map(({ way }) => way),
    ).toEqual(['unprotected', 'open-link']);
  });

  it('are asked for everything that a dispatch does', () => {
    expect(waysOf({})).toEqual(['link']);
    expect(waysOf({ form: 'both', domains: ['@yard.example'], openLink: {} })).toEqual([
      'link',
      'file',
      'domain',
      'open-link',
    ]);
  });

  it('forbid, or want a second person, for what is asked alone', () => {
    const decided = [rule('file', 'forbidden'), rule('domain', 'agreed')];
    expect(names(judgeWays(decided, ['link']).forbidden)).toEqual([]);
    const both = judgeWays(decided, waysOf({ form: 'both', domains: ['@yard.example'] }));
    expect([names(both.forbidden), names(both.agreed)]).toEqual([['file'], ['domain']]);
  });
});

describe('a marking', () => {
  const order = ['open', 'partners', 'bidders'];
  it.each([
    ['bidders', 'partners', true],
    ['partners', 'bidders', false],
    ['open', null, true],
    [null, 'open', false],
    ['open', 'open', false],
    ['partners', 'gone', true],
  ] as const)('from %s to %s is lowered: %s', (from, to, lowered) => {
    expect(isLowered(order, from, to)).toBe(lowered);
  });
});
