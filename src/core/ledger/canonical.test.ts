import { describe, expect, test } from 'vitest';
import { fc, test as prop } from '@fast-check/vitest';
import { canonicalJson, type Json } from '@/core/ledger/canonical';

/** RFC 8785 member by member, with nothing done for speed. */
function plainly(value: Json): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  if (Array.isArray(value)) return `[${(value as Json[]).map(plainly).join(',')}]`;
  return `{${Object.keys(value)
    .sort((a, b) => (a < b ? -1 : 1))
    .map(
      (name) => `${JSON.stringify(name)}:${plainly((value as Record<string, Json>)[name] ?? null)}`,
    )
    .join(',')}}`;
}

const text = fc.string({ unit: 'grapheme', maxLength: 12 });
const json = fc.letrec<{ value: Json }>((tie) => ({
  value: fc.oneof(
    { maxDepth: 4 },
    fc.constant(null),
    fc.boolean(),
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    text,
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(fc.oneof(text, fc.nat().map(String)), tie('value'), { maxKeys: 5 }),
  ),
})).value;

describe('canonical JSON', () => {
  prop.prop([json])('is the same whether members came in order or not', (value) => {
    const spelled = canonicalJson(value);
    expect(spelled).toBe(plainly(value));
    expect(canonicalJson(JSON.parse(spelled) as Json)).toBe(spelled);
    expect(spelled).not.toContain('\n');
  });

  test.each<[string, Json]>([
    ['a lone surrogate', 'a\uD800'],
    ['one in a name', { b: 1, 'a\uDC00': 2 }],
    ['one deep inside', { b: [{ a: '\uDFFF' }], a: 1 }],
    ['no number', { a: Number.NaN }],
    ['no end', [Number.POSITIVE_INFINITY]],
  ])('refuses %s', (_name, value) => {
    expect(() => canonicalJson(value)).toThrow(
      expect.objectContaining({ code: 'NOT_CANONICAL' }) as Error,
    );
  });

  test('spells numbers as ECMAScript does (RFC 8785, 3.2.2.3)', () => {
    expect(canonicalJson([333333333.33333329, 1e30, 4.5, 2e-3, 1e-27, -0])).toBe(
      '[333333333.3333333,1e+30,4.5,0.002,1e-27,0]',
    );
    expect(canonicalJson({ '€': 'Euro', '\r': 'CR', '1': 'One', ö: 'o', '<': 'less' })).toBe(
      '{"\\r":"CR","1":"One","<":"less","ö":"o","€":"Euro"}',
    );
  });
});
