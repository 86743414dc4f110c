import { counted } from '@/core/base/counted';
import { inspect } from 'node:util';
import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { concatBytes, equalBytes, fromUtf8, utf8 } from '@/core/base/bytes';
import { groupBy } from '@/core/base/group';
import { isId, newId, randomText } from '@/core/base/ids';
import { Secret } from '@/core/base/secret';

describe('bytes', () => {
  prop.prop([fc.array(fc.uint8Array())])('put together are their parts, in order', (parts) => {
    expect(Buffer.from(concatBytes(...parts)).equals(Buffer.concat(parts))).toBe(true);
  });

  prop.prop([fc.uint8Array(), fc.uint8Array()])('are equal exactly where they are', (a, b) => {
    expect(equalBytes(a, b)).toBe(Buffer.from(a).equals(b));
    expect(equalBytes(a, a.slice())).toBe(true);
  });

  prop.prop([fc.string({ unit: 'grapheme' })])('and text go both ways', (text) => {
    expect(fromUtf8(utf8(text))).toBe(text);
  });
});

prop.prop([fc.array(fc.integer({ min: 0, max: 5 }))])(
  'groups hold every item once, in order',
  (items) => {
    const groups = groupBy(items, (item) => item % 3);
    expect([...groups.values()].flat().sort()).toEqual([...items].sort());
    for (const [key, group] of groups)
      expect(group).toEqual(items.filter((item) => item % 3 === key));
  },
);

describe('ids', () => {
  const random = (length: number): Uint8Array =>
    Uint8Array.from({ length }, (_, i) => (i * 37) & 255);

  test('say what they name, and are checked by it', () => {
    const id = newId('grant', random);
    expect(id).toMatch(/^grt_[0-9a-hjkmnp-tv-z]{20}$/);
    expect(isId('grant', id)).toBe(true);
    expect(isId('document', id)).toBe(false);
    expect(isId('grant', `${id}x`)).toBe(false);
    expect(isId('grant', 'grt_<script>')).toBe(false);
  });

  test('use every letter of their alphabet alike', () => {
    const counts = groupBy(
      randomText(256, (length) => Uint8Array.from({ length }, (_, i) => i)),
      (letter) => letter,
    );
    expect(new Set([...counts.values()].map((group) => group.length))).toEqual(new Set([8]));
  });
});

test('a secret shows itself to nobody who prints it', () => {
  const secret = new Secret('a-mail-password');
  for (const printed of [
    String(secret),
    inspect(secret),
    JSON.stringify({ secret }),
    inspect({ deep: [secret] }),
  ])
    expect(printed).not.toContain('a-mail-password');
  expect(secret.reveal()).toBe('a-mail-password');
});

test.each([
  [0, '0 pages'],
  [1, '1 page'],
  [2, '2 pages'],
])('%i is counted as %s', (n, text) => {
  expect(counted(n, 'page')).toBe(text);
});
