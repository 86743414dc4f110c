// A member of staff opens a document they answer for: marked as a check, and counted nowhere.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { HOUR } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { checkDocument, checkPage } from '@/server/services/documents/check-document';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import type { StaffActor } from '@/server/services/base/deps';
import { listLedger } from '@/server/services/ledger/list-entries';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(2));
  sent = await dispatch(product, [document], ['mira@yard.example']);
});
afterAll(async () => {
  await product.close();
});

const checks = async () =>
  (await listLedger(product.deps, product.ida, { document: [document] })).rows.filter(
    ({ action }) => action === 'document.checked' || action === 'document.opened',
  );

test('it shows marked pages, and is one entry under their name with no recipient', async () => {
  const { deps, ida } = product;
  expect(await checkDocument(deps, ida, { id: document })).toMatchObject({
    title: 'Lines plan',
    pages: 2,
    revoked: false,
  });
  const picture = await checkPage(deps, ida, { id: document, page: 2, width: 300 });
  expect(picture.bytes.length).toBeGreaterThan(1_000);
  expect(await checks()).toMatchObject([
    {
      action: 'document.checked',
      outcome: 'granted',
      who: 'Ida Roe',
      recipient: null,
      dispatch: null,
    },
  ]);
  product.clock.set(START + 13 * HOUR);
  await checkPage(deps, ida, { id: document, page: 1, width: 300 });
  expect(await checks()).toHaveLength(2);
});

test('it is left out of every count', async () => {
  const { deps, ida } = product;
  expect((await viewDispatch(deps, ida, { id: sent.id })).grants).toMatchObject([
    { opens: 0, refusals: 0 },
  ]);
  expect((await listLedger(deps, ida, { kind: ['opened'] })).total).toBe(0);
});

test('nobody checks what is not theirs, or what is destroyed', async () => {
  const { deps, ida } = product;
  const other: StaffActor = { ...ida, id: 'stf_00000000000000000009', role: 'sender' };
  await expect(checkDocument(deps, other, { id: document })).rejects.toMatchObject({
    code: 'NOT_ALLOWED',
  });
  await expect(
    checkPage(deps, { ...other, role: 'auditor' }, { id: document, page: 1, width: 300 }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  await destroyKey(deps, ida, {
    id: document,
    typed: (await findDocument(deps.db.read, document))?.document.reference ?? '',
  });
  await expect(checkPage(deps, ida, { id: document, page: 1, width: 300 })).rejects.toMatchObject({
    code: 'NOT_FOUND',
  });
});
