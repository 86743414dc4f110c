// Another link for one recipient, or none: the old one leads nowhere, and nothing else changes.
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { HOUR } from '@/core/base/time';
import { grantRows } from '@/server/services/access/grant-rows';
import { replaceLink, switchOffLink } from '@/server/services/dispatching/change-link';
import { mailAgain } from '@/server/services/dispatching/mail-links';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { passOn } from '@/server/services/access/pass-on';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
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

test('a link that was switched off leads nowhere until it is replaced; access stays as it is', async () => {
  const { id, tokenOf } = await dispatch(product, [document], [MIRA, JONAS]);
  const miras = async () =>
    (await grantRows(product.deps, product.ida, { dispatch: id })).find(
      ({ address }) => address === MIRA,
    );
  const recipient = (await miras())?.recipientId ?? 'rcp_';
  await switchOffLink(product.deps, product.ida, { id, recipient });
  expect(await proofAsked(product.deps, tokenOf(MIRA))).toBeNull();
  expect(await proofAsked(product.deps, tokenOf(JONAS))).toBe('address');
  expect(await miras()).toMatchObject({ linkOff: true, revokedAt: null });
  await expect(switchOffLink(product.deps, product.ida, { id, recipient })).rejects.toMatchObject({
    problem: 'link-off-already',
  });
  const { link } = await replaceLink(product.deps, product.ida, { id, recipient });
  expect(await proofAsked(product.deps, link.split('/').at(-1) ?? '')).toBe('address');
  expect(await miras()).toMatchObject({ linkOff: false });
});

test('mailing again to whoever’s link was switched off brings them a new one that works', async () => {
  const { id, tokenOf } = await dispatch(product, [document], [MIRA]);
  const [grant] = await grantRows(product.deps, product.ida, { dispatch: id });
  const recipient = grant?.recipientId ?? 'rcp_';
  await switchOffLink(product.deps, product.ida, { id, recipient });
  await mailAgain(product.deps, product.ida, { id, recipients: [recipient] });
  await deliverMail(product.deps);
  const [message] = (await readMailroom(product.deps, { address: MIRA })).messages;
  const { raw } = await readMessage(product.deps, { id: message?.id ?? '' });
  const { text = '' } = await simpleParser(raw);
  const token = /\/r\/([0-9a-z]{24})/.exec(text)?.[1] ?? '';
  expect(token).not.toBe(tokenOf(MIRA));
  expect(await proofAsked(product.deps, token)).toBe('address');
});

test('a protected file is not made with a link that leads nowhere', async () => {
  const { id } = await dispatch(product, [document], [MIRA]);
  const [grant] = await grantRows(product.deps, product.ida, { dispatch: id });
  const recipient = grant?.recipientId ?? 'rcp_';
  await switchOffLink(product.deps, product.ida, { id, recipient });
  await expect(
    takeProtectedFile(product.deps, product.ida, { id, recipient, document }),
  ).rejects.toMatchObject({ problem: 'link-off' });
});

test('one passed a document again by a colleague, after their link was switched off, gets one link', async () => {
  const bounds = { people: 3, domains: ['@yard.example'], steps: 1 };
  const other = await protect(product, await drawing(2));
  const { id, tokenOf } = await dispatch(product, [document, other], [MIRA], {
    rights: ['read', 'pass-on'],
    conditions: { passOn: bounds },
  });
  const reader = await prove(product, tokenOf(MIRA), MIRA);
  const give = (what: DocumentId) =>
    passOn(product.deps, reader, {
      document: what,
      address: JONAS,
      rights: ['read'],
      until: product.clock.now() + HOUR,
      note: '',
    });
  await openDocument(product.deps, reader, { token: tokenOf(MIRA), document });
  await give(document);
  const jonas = async () =>
    (await grantRows(product.deps, product.ida, { dispatch: id })).filter(
      ({ address }) => address === JONAS,
    );
  const recipient = (await jonas())[0]?.recipientId ?? 'rcp_';
  await switchOffLink(product.deps, product.ida, { id, recipient });
  await give(other);
  expect((await jonas()).map(({ linkOff }) => linkOff)).toEqual([false, false]);
});
