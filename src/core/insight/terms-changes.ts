import type { Fact } from '@/core/insight/fact';
import type { Words } from '@/core/insight/fact-words';
import { conditionLines } from '@/core/policy/condition-lines';
import { parseTerms, type Terms } from '@/core/policy/rights';
import { rightsLine } from '@/core/policy/rights-line';

/** Terms as a reader takes them in: rights, start, end, conditions. */
function told(
  { rights, from, until, prints, conditions }: Terms,
  { moment }: Words,
): Readonly<Record<'Rights' | 'From' | 'Until' | 'Conditions', string>> {
  const lines = conditionLines(conditions, 'the recipient’s zone');
  return {
    Rights: rightsLine(rights, prints),
    From: from === null ? 'at once' : moment(from),
    Until: until === null ? 'no end' : moment(until),
    Conditions: lines.length === 0 ? 'none' : lines.join('; '),
  };
}

/** What differs between two lines of `termsText`; without the first, what the second comes to. */
export function termsChanges(before: string | null, after: string, words: Words): Fact[] {
  const now = told(parseTerms(after), words);
  if (before === null || before === '')
    return Object.entries(now).flatMap(([label, value]) =>
      value === 'at once' || value === 'none' ? [] : [{ label, before: null, after: value }],
    );
  const was = told(parseTerms(before), words);
  return Object.entries(now).flatMap(([label, value]) => {
    const earlier = was[label as keyof typeof was];
    return earlier === value ? [] : [{ label, before: earlier, after: value }];
  });
}
