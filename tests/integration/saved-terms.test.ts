// Saved terms in use: who has access given with them, and what a change does to what was sent.
import { newLayer } from '@/core/watermark/layers';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId, TermsId } from '@/core/base/ids';
import { termsAt } from '@/core/policy/saved-terms';
import { putTermsInput } from '@/contracts/saved-terms';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { previewSavedTerms, putTerms } from '@/server/services/access/change-saved-terms';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { viewTerms } from '@/server/services/filing/manage-filing';
import { START, drawing, protect, startProduct, type Product } from '../support/product';

const WEEK = {
  name: 'A week',
  rights: ['read', 'print'] as ('read' | 'print')[],
  days: 7,
  prints: 2,
  watermark: [newLayer('tiled', '{name}')],
};
let product: Product;
let document: DocumentId;
let id: TermsId;
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida } = product;
  document = await protect(product, await drawing(1));
  ({ id } = await putTerms(deps, ida, { id: null, ...WEEK }));
  await dispatchDocuments(deps, ida, {
    documents: [document],
    subject: 'With saved terms',
    note: '',
    watermark: [],
    delivery: 'by-hand',
    terms: { ...termsAt(WEEK, START), rights: WEEK.rights },
    kept: id,
    recipients: ['a@x.example', 'b@x.example', 'c@x.example', 'own@x.example'].map((address) => ({
      address,
      name: '',
      organisation: '',
      ...(address.startsWith('own')
        ? { terms: { rights: ['read' as const], from: null, until: START + DAY, prints: null } }
        : {}),
    })),
  });
  const rows = await grantRows(deps, ida, { document });
  const [changed, revoked] = ['b@x.example', 'c@x.example'].map((address) =>
    rows.find((row) => row.address === address),
  );
  if (changed === undefined || revoked === undefined) throw new Error('no grants');
  await changeGrants(deps, ida, {
    changes: [{ grant: changed.id, revision: changed.revision, until: START + 20 * DAY }],
  });
  await revokeGrants(deps, ida, { grants: [revoked.id] });
});
afterAll(async () => {
  await product.close();
});
const endsOf = async () =>
  Object.fromEntries(
    (await grantRows(product.deps, product.ida, { document })).map(({ address, rights, until }) => [
      address,
      [rights.join('+'), Math.round(((until ?? 0) - START) / DAY)],
    ]),
  );

test('their use is counted, without who was set apart, changed or revoked', async () => {
  expect((await viewTerms(product.deps)).terms).toMatchObject([
    { name: 'A week', version: 1, uses: 1 },
  ]);
});

test('a change is foreseen by name, and leaves what was sent alone where that is chosen', async () => {
  const { deps, ida } = product;
  const impact = await previewSavedTerms(deps, ida, {
    id,
    rights: ['read'],
    days: 3,
    prints: null,
  });
  expect(impact).toMatchObject({
    pairs: 1,
    endSooner: { people: 1 },
    rights: [{ right: 'print', lost: { people: 1 }, gained: { people: 0 } }],
    rows: [{ name: 'a@x.example' }],
  });
  expect(
    await putTerms(deps, ida, { id, ...WEEK, rights: ['read'], days: 3, seen: 1 }),
  ).toMatchObject({ changed: 0 });
  expect(await endsOf()).toMatchObject({ 'a@x.example': ['read+print', 7] });
  await putTerms(deps, ida, { id, ...WEEK, seen: 2 });
});

test('it follows where that is chosen, as though it had been sent with the changed terms, and back again', async () => {
  const { deps, ida, clock } = product;
  clock.set(START + 4 * DAY);
  expect(
    await previewSavedTerms(deps, ida, { id, rights: ['read'], days: 3, prints: null }),
  ).toMatchObject({ endNow: { people: 1 } });
  expect(
    await putTerms(deps, ida, { id, ...WEEK, rights: ['read'], days: 3, seen: 3, reachBack: true }),
  ).toMatchObject({ changed: 1 });
  expect(await endsOf()).toEqual({
    'a@x.example': ['read', 3],
    'b@x.example': ['read+print', 20],
    'c@x.example': ['read+print', 7],
    'own@x.example': ['read', 1],
  });
  expect(
    await previewSavedTerms(deps, ida, { id, rights: WEEK.rights, days: 7, prints: 2 }),
  ).toMatchObject({ revive: { people: 1 } });
  await putTerms(deps, ida, { id, ...WEEK, reachBack: true });
  expect(await endsOf()).toMatchObject({ 'a@x.example': ['read+print', 7] });
  clock.set(START);
});

test('of two people changing them at once the second is told', async () => {
  const { deps, ida } = product;
  await putTerms(deps, ida, { id, ...WEEK, days: 8, seen: 5 });
  await expect(
    putTerms(deps, ida, { id, ...WEEK, days: 9, seen: 5, reachBack: true }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  expect(await endsOf()).toMatchObject({ 'a@x.example': ['read+print', 7] });
});

test('terms that a dispatch does not use unchanged are not taken for them', async () => {
  const { deps, ida } = product;
  const other = await protect(product, await drawing(1));
  await dispatchDocuments(deps, ida, {
    documents: [other],
    subject: 'Other',
    note: '',
    watermark: [],
    delivery: 'by-hand',
    terms: { rights: ['read'], from: null, until: START + 8 * DAY + HOUR, prints: null },
    kept: id,
    recipients: [{ address: 'd@x.example', name: '', organisation: '' }],
  });
  expect(
    await previewSavedTerms(deps, ida, { id, rights: ['read'], days: 1, prints: null }),
  ).toMatchObject({ pairs: 1 });
});

test('nor are those whose end is another', async () => {
  const { deps, ida } = product;
  const other = await protect(product, await drawing(1));
  await dispatchDocuments(deps, ida, {
    documents: [other],
    subject: 'Longer',
    note: '',
    watermark: [],
    delivery: 'by-hand',
    terms: { rights: WEEK.rights, from: null, until: START + 30 * DAY, prints: 2 },
    kept: id,
    recipients: [{ address: 'e@x.example', name: '', organisation: '' }],
  });
  expect((await viewTerms(deps)).terms).toMatchObject([{ uses: 1 }]);
});

test('the screen’s form is what the service takes', () => {
  expect(
    putTermsInput.safeParse({
      id: null,
      name: 'A week',
      rights: ['read'],
      prints: null,
      days: 7,
      watermark: [],
      reachBack: false,
    }).success,
  ).toBe(true);
  expect(
    putTermsInput.safeParse({
      id: null,
      name: 'A week',
      rights: ['print'],
      prints: null,
      days: 7,
      watermark: [],
    }).success,
  ).toBe(false);
});
