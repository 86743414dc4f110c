import { describe, expect, test } from 'vitest';
import { normaliseAddress, parseAddresses } from '@/core/policy/address';

describe('normaliseAddress', () => {
  test.each([
    [' Mira.Kolbe@Brackwater.Example ', 'mira.kolbe@brackwater.example'],
    ['a+plans@brackwater.example', 'a+plans@brackwater.example'],
    ['a@sub.brackwater.example', 'a@sub.brackwater.example'],
    ['j@bücher.example', 'j@xn--bcher-kva.example'],
  ])('%s becomes %s', (text, address) => {
    expect(normaliseAddress(text)).toBe(address);
  });

  test.each([
    '',
    'nobody',
    'a@b',
    'a@@b.example',
    'a b@c.example',
    '.a@b.example',
    'a@-b.example',
    'a@192.0.2.1',
    'a@b.example>',
    'a@b..example',
  ])('%s is none', (text) => {
    expect(normaliseAddress(text)).toBeNull();
  });
});

test('pasted lists are read whatever separates them, once each', () => {
  const { addresses, unreadable } = parseAddresses(
    'Mira Kolbe <mira@brackwater.example>; ' +
      'jonas@brackwater.example\nMIRA@brackwater.example\tnonsense, "Feld, J" ' +
      '<j@kelder.example>',
  );
  expect(addresses.map((each) => each.address)).toEqual([
    'mira@brackwater.example',
    'jonas@brackwater.example',
    'j@kelder.example',
  ]);
  expect(addresses[0]?.name).toBe('Mira Kolbe');
  expect(unreadable).toContain('nonsense');
});
