import { describe, expect, test } from 'vitest';
import { csvField } from '@/core/base/csv';

describe('a field of a CSV file', () => {
  test.each([
    ['plain', 'plain'],
    ['', ''],
    ['a, b', '"a, b"'],
    ['say "so"', '"say ""so"""'],
    ['two\r\nlines', '"two\r\nlines"'],
  ])('%j is %j', (value, field) => {
    expect(csvField(value)).toBe(field);
  });

  test.each(['=1+1', '+1', '-1', '@SUM(A1)', '\tx', '\rx'])(
    '%j is no formula any more',
    (value) => {
      expect(csvField(value).replace(/^"/, '').startsWith("'")).toBe(true);
    },
  );
});
