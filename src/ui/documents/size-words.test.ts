import { describe, expect, test } from 'vitest';
import { referenceFrom, sizeText, titleFrom } from '@/ui/documents/size-words';

describe('what a file begins with', () => {
  test.each([[0, '0 B'], [999, '999 B'], [1000, '1.0 kB'], [52_340, '52 kB'], [4_700_000, '4.7 MB'], [1024 ** 3, '1.1 GB'], [5e12, '5000 GB']])('%i bytes are %s', (bytes, words) => {
    expect(sizeText(bytes)).toBe(words);
  });

  test('a title from its name, a reference unlike those in use', () => {
    expect(titleFrom('Lines_plan rev C.PDF')).toBe('Lines plan rev C');
    expect(referenceFrom('Lines plan rev C.pdf', new Set())).toBe('LINES-PLAN-REV-C');
    expect(referenceFrom('Lines plan rev C.pdf', new Set(['LINES-PLAN-REV-C', 'LINES-PLAN-REV-C-2']))).toBe('LINES-PLAN-REV-C-3');
    expect(referenceFrom('水.pdf', new Set())).toBe('DOC');
  });
});
