import type { DocumentId } from '@/core/base/ids';
import { termsText, type Terms } from '@/core/policy/rights';
import type { Row } from '@/core/compose/sheet';

/** Rows that get the same: the same documents on the same terms. */
export type SameTerms = {
  readonly terms: Terms;
  readonly without: readonly DocumentId[];
  readonly rows: readonly Row[];
};

/** Who gets the same, the largest set first. */
export function sameTerms(
  rows: readonly { readonly row: Row; readonly terms: Terms }[],
): SameTerms[] {
  const sets = new Map<string, { terms: Terms; without: readonly DocumentId[]; rows: Row[] }>();
  for (const { row, terms } of rows) {
    const name = `${termsText(terms)} ${[...row.without].sort().join(' ')}`;
    const there = sets.get(name);
    if (there === undefined) sets.set(name, { terms, without: row.without, rows: [row] });
    else there.rows.push(row);
  }
  return [...sets.values()].sort((a, b) => b.rows.length - a.rows.length);
}
