// Another link for one recipient: the old one leads nowhere, and nothing else changes.
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { grantRows } from '@/server/services/access/grant-rows';
import { replaceLink } from '@/server/services/dispatching/replace-link';
import { openDocument } from '@/server/services/reading/open-document';
import { proofAsked } from '@/server/services/reading/visit-link';
import { drawing, dispatch, protect, prove, startProduct, type Product } from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let document: DocumentId;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
});
afterAll(async () => {
  await product.close();
});

const MIRA = 'mira@yard.example';
const JONAS = 'jonas@yard.example';

test('a link that was replaced leads nowhere; the new one and everybody else’s go on', async () => {
  const { id, tokenOf } = await dispatch(product, [document], [MIRA, JONAS]);
  const grants = await grantRows(product.deps, product.ida, { dispatch: id });
  const mira = grants.find(({ address }) => address === MIRA)?.recipientId ?? 'rcp_';
  const { link } = await replaceLink(product.deps, product.ida, { id, recipient: mira });
  const token = link.split('/').at(-1) ?? '';
  expect(token).not.toBe(tokenOf(MIRA));
  expect(await proofAsked(product.deps, tokenOf(MIRA))).toBeNull();
  expect(await proofAsked(product.deps, tokenOf(JONAS))).toBe('address');
  expect(
    await openDocument(product.deps, await prove(product, token, MIRA), { token, document }),
  ).toHaveProperty('licence');
  const again = await grantRows(product.deps, product.ida, { dispatch: id });
  expect(again.map(({ revision, rights }) => ({ revision, rights }))).toEqual(
    grants.map(({ revision, rights }) => ({ revision, rights })),
  );
});

test('is not made for whoever has none, nor by anyone whose dispatch it is not', async () => {
  const { id } = await dispatch(product, [document], [MIRA]);
  await expect(
    replaceLink(product.deps, product.ida, { id, recipient: 'rcp_00000000000000000000' }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  const nils = await joinStaff(product, 'sender', 'nils-of-links');
  await expect(
    replaceLink(product.deps, nils, { id, recipient: 'rcp_00000000000000000000' }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
});
