import { groupBy } from '@/core/base/group';
import type { DocumentId } from '@/core/base/ids';
import { termsText, type Terms } from '@/core/policy/rights';

/** That an addressee is to have a document on these terms. */
export type Gift<T extends Terms = Terms> = {
  readonly address: string;
  readonly document: DocumentId;
  readonly terms: T;
};

/** A dispatch gives each of its addressees each of its documents, on one set of terms. */
export type PlannedDispatch<T extends Terms = Terms> = {
  readonly addresses: readonly string[];
  readonly documents: readonly DocumentId[];
  readonly terms: T;
};

/**
 * The gifts as dispatches that give exactly these: anyone who is to have the same documents on the
 * same terms is in one.
 */
export function dispatchesOf<T extends Terms>(gifts: readonly Gift<T>[]): PlannedDispatch<T>[] {
  const people = [
    ...groupBy(gifts, ({ address, terms }) => `${address} ${termsText(terms)}`).values(),
  ].flatMap((own) =>
    own.slice(0, 1).map(({ address, terms }) => ({
      address,
      terms,
      documents: [...new Set(own.map(({ document }) => document))].sort(),
    })),
  );
  return [
    ...groupBy(
      people,
      ({ documents, terms }) => `${documents.join(' ')} ${termsText(terms)}`,
    ).values(),
  ].flatMap((alike) =>
    alike.slice(0, 1).map(({ documents, terms }) => ({
      documents,
      terms,
      addresses: alike.map(({ address }) => address),
    })),
  );
}
