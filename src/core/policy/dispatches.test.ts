import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { termsText, type Terms } from '@/core/policy/rights';
import { dispatchesOf, type Gift } from '@/core/policy/dispatches';

const terms = (until: number | null, rights: Terms['rights'] = ['read']): Terms => ({
  rights,
  from: null,
  until,
  prints: null,
});
const gift = (address: string, document: string, of: Terms = terms(null)): Gift => ({
  address,
  document: `doc_${document}`,
  terms: of,
});
const textOf = ({
  address,
  document,
  terms: of,
}: {
  readonly address: string;
  readonly document: DocumentId;
  readonly terms: Terms;
}): string => `${address} ${document} ${termsText(of)}`;

const gifts = fc.array(
  fc.record({
    address: fc.constantFrom('a@x.example', 'b@x.example', '@y.example'),
    document: fc.constantFrom<DocumentId>('doc_1', 'doc_2', 'doc_3'),
    terms: fc.constantFrom(terms(null), terms(5), terms(5, ['read', 'copy'])),
  }),
  { maxLength: 25 },
);

describe('gifts as dispatches', () => {
  prop.prop([gifts])('give exactly what was to be given, each once', (all) => {
    const given = dispatchesOf(all).flatMap(({ addresses, documents, terms: of }) =>
      addresses.flatMap((address) =>
        documents.map((document) => textOf({ address, document, terms: of })),
      ),
    );
    expect(given.sort()).toEqual([...new Set(all.map(textOf))].sort());
  });

  prop.prop([gifts])('the order in which they come makes no other dispatches', (all) => {
    const shape = (of: readonly Gift[]) =>
      dispatchesOf(of)
        .map(({ addresses, documents, terms: on }) =>
          JSON.stringify([[...addresses].sort(), documents, termsText(on)]),
        )
        .sort();
    expect(shape([...all].reverse())).toEqual(shape(all));
  });

  test('who is to have the same on the same terms is in one dispatch', () => {
    expect(
      dispatchesOf([
        gift('a@x.example', '1'),
        gift('b@x.example', '2'),
        gift('a@x.example', '2'),
        gift('b@x.example', '1'),
      ]),
    ).toEqual([
      {
        addresses: ['a@x.example', 'b@x.example'],
        documents: ['doc_1', 'doc_2'],
        terms: terms(null),
      },
    ]);
  });

  test('who is to have other documents, or other terms, is not', () => {
    expect(
      dispatchesOf([gift('a@x.example', '1'), gift('b@x.example', '1'), gift('b@x.example', '2')]),
    ).toHaveLength(2);
    expect(
      dispatchesOf([gift('a@x.example', '1'), gift('b@x.example', '1', terms(7))]),
    ).toHaveLength(2);
    expect(dispatchesOf([])).toEqual([]);
  });
});
