import type { GrantRow } from '@/contracts/dispatch';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import { DAY, HOUR } from '@/core/base/time';
import { termsAt } from '@/core/policy/saved-terms';
import { termsText, type Terms } from '@/core/policy/rights';

/** Terms that somebody who is added can be given, and whose they are. */
export type OfferedTerms = {
  readonly key: string;
  readonly group: 'This dispatch' | 'Terms of a recipient' | 'Saved terms';
  readonly label: string;
  readonly terms: Terms;
};

type Given = Pick<
  GrantRow,
  'address' | 'parent' | 'revokedAt' | 'rights' | 'from' | 'until' | 'prints' | 'conditions'
>;

const DAYS_AT_FIRST = 30;

/** What was given, with its conditions. Who comes later begins at once. */
function termsOf({ rights, until, prints, conditions }: Given): Terms {
  return { rights, from: null, until, prints, ...(conditions === null ? {} : { conditions }) };
}

/**
 * The terms that most of a dispatch's people have; then each person's; then saved ones. What was
 * passed on is nobody's to choose.
 */
export function offeredTerms(
  grants: readonly Given[],
  kept: readonly SavedTermsRow[],
  now: number,
): OfferedTerms[] {
  const given = grants.filter(({ parent, revokedAt }) => parent === null && revokedAt === null);
  const people = [...new Map(given.map((grant) => [grant.address, termsOf(grant)]))];
  const counts = new Map<string, { readonly terms: Terms; count: number }>();
  for (const [, terms] of people) {
    const text = termsText(terms);
    const there = counts.get(text);
    if (there === undefined) counts.set(text, { terms, count: 1 });
    else there.count++;
  }
  const [most] = [...counts.values()].sort((a, b) => b.count - a.count);
  const share =
    most === undefined || most.count === people.length
      ? ''
      : ` (${String(most.count)} of ${String(people.length)} people)`;
  return [
    ...(most === undefined
      ? []
      : [
          {
            key: 'dispatch',
            group: 'This dispatch' as const,
            label: `Common terms${share}`,
            terms: most.terms,
          },
        ]),
    ...people.map(([address, terms]) => ({
      key: address,
      group: 'Terms of a recipient' as const,
      label: address,
      terms,
    })),
    ...kept.map((row) => ({
      key: row.id,
      group: 'Saved terms' as const,
      label: row.name,
      terms: termsAt(row, now),
    })),
  ];
}

/** Terms that can still be given: where their end has passed, with one to come, and a sentence that says so. */
export function stillOpen(
  terms: Terms,
  now: number,
): { readonly terms: Terms; readonly said: string | null } {
  if (terms.until === null || terms.until > now) return { terms, said: null };
  const until = Math.ceil((now + DAYS_AT_FIRST * DAY) / HOUR) * HOUR;
  return {
    terms: { ...terms, until },
    said:
      `The end of these terms has passed, so this one lies ${String(DAYS_AT_FIRST)} days ` +
      'ahead. Choose another if that is not meant.',
  };
}
