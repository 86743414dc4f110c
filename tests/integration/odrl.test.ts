import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { grantsFromOdrl } from '@/core/odrl/grants';
import type { Json } from '@/core/odrl/report';
import { bringTermsIn, previewTerms, takeGrantsOut, takeTermsOut } from '@/server/services/exchange-odrl';
import { putTerms } from '@/server/services/change-kept-terms';
import { viewTerms } from '@/server/services/manage-filing';
import { dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
  await putTerms(product.deps, product.ida, { id: null, name: 'Bidders', rights: ['read', 'print'], days: 21, prints: 2, watermark: '{address}' });
  await putTerms(product.deps, product.ida, { id: null, name: 'Partners', rights: ['read', 'copy', 'print', 'keep'], days: null, prints: null, watermark: '' });
});
afterAll(() => product.close());

type Policy = { 'embargo:name': string; permission: { action: string; constraint?: { leftOperand: string; operator: string; rightOperand: unknown }[] }[] };
const out = async (): Promise<{ '@graph': Policy[] }> => JSON.parse(JSON.stringify((await takeTermsOut(product.deps)).document)) as { '@graph': Policy[] };
const preview = async (document: unknown) => (await previewTerms(product.deps, product.ida, { text: JSON.stringify(document) })).brought;

describe('kept terms', () => {
  test('come back the same, and change nothing', async () => {
    expect((await preview(await out())).map(({ name, state }) => [name, state])).toEqual([['Bidders', 'same'], ['Partners', 'same']]);
    expect(await bringTermsIn(product.deps, product.ida, { text: JSON.stringify(await out()) })).toEqual({ kept: 0 });
  });

  test('with a change, a new name and something unknown: what is understood whole is kept, the rest is named and stays out', async () => {
    const document = await out();
    const [bidders, partners] = document['@graph'];
    if (bidders === undefined || partners === undefined) throw new Error('no policies');
    const longer = structuredClone(bidders);
    for (const { constraint } of longer.permission) for (const each of constraint ?? []) if (each.leftOperand === 'embargo:sinceDispatch') each.rightOperand = { '@value': 'P30D', '@type': 'xsd:duration' };
    const fresh = { ...structuredClone(partners), 'embargo:name': 'Owners' };
    const strange = { ...structuredClone(partners), 'embargo:name': 'Strange', prohibition: [{ action: 'print' }] };
    const commenting = { ...structuredClone(bidders), 'embargo:name': 'Commenting', permission: [...bidders.permission, { ...bidders.permission[0], action: 'annotate' }] };
    const brought = { ...document, '@graph': [longer, fresh, strange, commenting, { ...fresh }] };
    expect((await preview(brought)).map(({ name, state }) => [name, state])).toEqual([['Bidders', 'changed'], ['Owners', 'new'], ['Strange', 'stopped'], ['Commenting', 'stopped'], ['Owners', 'stopped']]);
    expect(await bringTermsIn(product.deps, product.ida, { text: JSON.stringify(brought) })).toEqual({ kept: 2 });
    const { terms } = await viewTerms(product.deps);
    expect(terms.map(({ name, days }) => [name, days])).toEqual([['Bidders', 30], ['Owners', null], ['Partners', null]]);
    expect((await preview(await out())).every(({ state }) => state === 'same')).toBe(true);
  });

  test.each(['', 'Dear all', '[]', '7'])('%j is no such file', async (text) => {
    await expect(previewTerms(product.deps, product.ida, { text })).rejects.toMatchObject({ code: 'INVALID' });
  });
});

test('the grants of a sending go out with addresses, references, ends and what was revoked', async () => {
  const document = await protect(product, await drawing(1));
  const { id, grants } = await dispatch(product, [document], ['mira+tender@yard.example'], { rights: ['read', 'print'], prints: 3 });
  const taken = await takeGrantsOut(product.deps, product.ida, { id });
  const [read] = grantsFromOdrl(JSON.parse(JSON.stringify(taken.document)) as Json);
  expect(read).toMatchObject({ unknown: [], grant: { id: grants[0]?.id, giver: 'ida@tern-quill.example', address: 'mira+tender@yard.example', revoked: false, terms: { rights: ['read', 'print'], prints: 3, until: grants[0]?.until } } });
});
