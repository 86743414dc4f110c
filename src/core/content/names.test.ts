import { expect, test } from 'vitest';
import { referenceFrom, titleFrom } from '@/core/content/names';

test('a title from its name, a reference unlike those in use', () => {
  expect(titleFrom('Lines_plan rev C.PDF')).toBe('Lines plan rev C');
  expect(referenceFrom('Lines plan rev C.pdf', new Set())).toBe('LINES-PLAN-REV-C');
  expect(
    referenceFrom('Lines plan rev C.pdf', new Set(['LINES-PLAN-REV-C', 'LINES-PLAN-REV-C-2'])),
  ).toBe('LINES-PLAN-REV-C-3');
  expect(referenceFrom('水.pdf', new Set())).toBe('DOC');
});
