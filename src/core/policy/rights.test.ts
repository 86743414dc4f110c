import { expect, test } from 'vitest';
import { randomCase } from '../../../tests/support/random-policy';
import { brokenDependencies, parseTerms, termsText, type Terms } from '@/core/policy/rights';

const terms = (over: Partial<Terms>): Terms => ({
  rights: ['read'],
  from: null,
  until: null,
  prints: null,
  ...over,
});

test.each<[string, Partial<Terms>, unknown[]]>([
  ['read alone stands', {}, []],
  ['print without read', { rights: ['print'] }, [{ right: 'print', needs: 'read' }]],
  ['keep without copy', { rights: ['read', 'print', 'keep'] }, [{ right: 'keep', needs: 'copy' }]],
  [
    'keep beside a print limit',
    { rights: ['read', 'copy', 'print', 'keep'], prints: 2 },
    [{ right: 'keep', needs: 'unlimited-print' }],
  ],
  ['keep with copy and unlimited print', { rights: ['read', 'copy', 'print', 'keep'] }, []],
])('%s', (_name, over, broken) => {
  expect(brokenDependencies(terms(over))).toEqual(broken);
});

test('equal terms have one text, whatever the order of their rights', () => {
  expect(termsText(terms({ rights: ['print', 'read'] }))).toBe(
    termsText(terms({ rights: ['read', 'print'] })),
  );
  expect(termsText(terms({ until: 5 }))).not.toBe(termsText(terms({})));
});

test('terms come back from a line of text as they were', () => {
  for (let seed = 0; seed < 500; seed++)
    for (const { terms } of randomCase(seed).policy.grants)
      expect(termsText(parseTerms(termsText(terms)))).toBe(termsText(terms));
});
