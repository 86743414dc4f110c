import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { isOneSlipAway, slipFinder } from '@/core/policy/look-alike';

describe('one slip away', () => {
  test.each([
    ['mira@brackwater.example', 'mira@brackvater.example', true],
    ['mira@brackwater.example', 'mira@brackwate.example', true],
    ['mira@brackwater.example', 'miira@brackwater.example', true],
    ['mira@brackwater.example', 'mria@brackwater.example', true],
    ['mira@brackwater.example', 'mira@brackwater.example', false],
    ['mira@brackwater.example', 'mora@brackvater.example', false],
    ['', 'a', true],
    ['', '', false],
  ])('%s and %s: %s', (a, b, expected) => {
    expect(isOneSlipAway(a, b)).toBe(expected);
    expect(isOneSlipAway(b, a)).toBe(expected);
  });

  const letters = ['a', 'b', 'c'];
  const slips = (text: string): Set<string> => {
    const found = new Set<string>();
    for (let i = 0; i <= text.length; i++) {
      for (const letter of letters) {
        found.add(text.slice(0, i) + letter + text.slice(i));
        if (i < text.length) found.add(text.slice(0, i) + letter + text.slice(i + 1));
      }
      if (i < text.length) found.add(text.slice(0, i) + text.slice(i + 1));
      if (i + 1 < text.length)
        found.add(text.slice(0, i) + (text[i + 1] ?? '') + (text[i] ?? '') + text.slice(i + 2));
    }
    found.delete(text);
    return found;
  };
  const short = fc.string({ unit: fc.constantFrom(...letters), maxLength: 6 });
  prop.prop([short, short])('is what one slip can make of a text, and nothing else', (a, b) => {
    expect(isOneSlipAway(a, b)).toBe(slips(a).has(b));
  });
});

describe('a new address is held against those that are known', () => {
  test('and the one that was meant is found', () => {
    const find = slipFinder(['jonas@x.example', 'mira.kolbe@brackwater.example']);
    expect(find('mira.kolbe@brackvater.example')).toBe('mira.kolbe@brackwater.example');
    expect(find('somebody@new.example')).toBeNull();
  });

  const short = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 7 });
  prop.prop([short, fc.array(short, { maxLength: 12 })])(
    'as if each of them had been compared',
    (address, known) => {
      const found = slipFinder(known)(address);
      if (found === null) expect(known.some((each) => isOneSlipAway(address, each))).toBe(false);
      else expect(known.includes(found) && isOneSlipAway(address, found)).toBe(true);
    },
  );
});
