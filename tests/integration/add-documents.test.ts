// Documents that are added to a dispatch later: everybody, or some, on the terms they have there.
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { newId, type DocumentId, type RecipientId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { grantRows } from '@/server/services/access/grant-rows';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { addDocuments } from '@/server/services/dispatching/add-documents';
import { switchOffLink } from '@/server/services/dispatching/change-link';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { findDocument, insertDocument } from '@/server/repositories/documents/document-repository';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { openDocument } from '@/server/services/reading/open-document';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { setWay } from '../support/rules';
import { joinStaff } from '../support/staff';

const MIRA = 'mira@yard.example';
const JONAS = 'jonas@yard.example';
let product: Product;
let first: DocumentId;
let later: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
beforeAll(async () => {
  product = await startProduct();
  first = await protect(product, await drawing(1));
  later = await protect(product, await drawing(1), 'Addendum');
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  product.clock.set(START);
  sent = await dispatch(product, [first], [MIRA, JONAS], { until: START + 9 * DAY });
});

const add = (over: Partial<Parameters<typeof addDocuments>[2]> = {}) =>
  addDocuments(product.deps, product.ida, {
    id: sent.id,
    documents: [later],
    recipients: null,
    ...over,
  });
const rows = async (document = later) =>
  (await grantRows(product.deps, product.ida, { dispatch: sent.id })).filter(
    ({ documentId }) => documentId === document,
  );
const recipientAt = async (address: string): Promise<RecipientId> =>
  (await rows(first)).find((row) => row.address === address)?.recipientId ?? 'rcp_';
async function lastMail(address: string): Promise<string> {
  await deliverMail(product.deps);
  const [message] = (await readMailroom(product.deps, { address })).messages;
  const { raw } = await readMessage(product.deps, { id: message?.id ?? '' });
  return (await simpleParser(raw)).text ?? '';
}

test('everybody gets them on their own terms, by the link they have, and a mail that names them alone', async () => {
  expect(await add()).toEqual({ given: 2 });
  expect((await rows()).map(({ rights, until }) => ({ rights, until }))).toEqual([
    { rights: ['read'], until: START + 9 * DAY },
    { rights: ['read'], until: START + 9 * DAY },
  ]);
  const text = await lastMail(MIRA);
  expect(text).toContain('Addendum');
  expect(text).not.toContain('Lines plan');
  expect(text).toContain(`/r/${sent.tokenOf(MIRA)}`);
  const token = sent.tokenOf(MIRA);
  const reader = await prove(product, token, MIRA);
  expect(await openDocument(product.deps, reader, { token, document: later })).toHaveProperty(
    'licence',
  );
});

test('some get them, and nobody who was shut out or whose time is over', async () => {
  await add({ recipients: [await recipientAt(JONAS)] });
  expect((await rows()).map(({ address }) => address)).toEqual([JONAS]);
  const other = await protect(product, await drawing(1), 'Second addendum');
  const [mira] = (await rows(first)).filter(({ address }) => address === MIRA);
  await revokeGrants(product.deps, product.ida, { grants: [mira?.id ?? 'grt_'], reason: '' });
  expect(await add({ documents: [other] })).toEqual({ given: 1 });
  await expect(
    add({ documents: [other], recipients: [mira?.recipientId ?? 'rcp_'] }),
  ).rejects.toMatchObject({ problem: 'carried-already' });
  product.clock.set(START + 10 * DAY);
  const third = await protect(product, await drawing(1), 'Third addendum');
  await expect(add({ documents: [third] })).rejects.toMatchObject({
    problem: 'given-to-nobody-here',
  });
});

test('a link that was switched off is replaced, so that what is mailed leads somewhere', async () => {
  const recipient = await recipientAt(MIRA);
  await switchOffLink(product.deps, product.ida, { id: sent.id, recipient });
  await add();
  expect((await rows()).map(({ linkOff }) => linkOff)).toEqual([false, false]);
  expect(await lastMail(MIRA)).not.toContain(sent.tokenOf(MIRA));
});

test('a group gets them as a whole, and its members beneath it', async () => {
  const [mira, jonas] = await findRecipients(product.deps.db.read, [MIRA, JONAS]);
  const { id: group } = await putGroup(product.deps, product.ida, { id: null, name: 'Bidders' });
  await changeMembers(product.deps, product.ida, {
    id: group,
    add: [mira?.id ?? 'rcp_', jonas?.id ?? 'rcp_'],
    remove: [],
  });
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [first],
    recipients: [],
    groups: [{ id: group }],
    terms: { rights: ['read'], from: null, until: START + 5 * DAY, prints: null },
    subject: 'To the bidders',
    note: '',
    watermark: [],
    delivery: 'mail',
  });
  sent = { ...sent, id };
  await add();
  const given = await rows();
  const whole = given.find(({ kind }) => kind === 'group');
  expect(given).toHaveLength(3);
  expect(given.filter(({ parent }) => parent === whole?.id)).toHaveLength(2);
});

test('a way that was forbidden since, or wants a second person, takes no more documents', async () => {
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [first],
    recipients: [],
    domains: [{ domain: 'yard.example' }],
    terms: { rights: ['read'], from: null, until: START + 5 * DAY, prints: null },
    subject: 'To the yard',
    note: '',
    watermark: [],
    delivery: 'by-hand',
  });
  sent = { ...sent, id };
  await setWay(product, 'domain', 'forbidden', 'people are named');
  await expect(add()).rejects.toMatchObject({ problem: 'way-forbidden' });
  await setWay(product, 'domain', 'agreed', 'a look first');
  await expect(add()).rejects.toMatchObject({ problem: 'second-person-needed' });
  expect(await rows()).toEqual([]);
  await setWay(product, 'domain', 'allowed');
  expect(await add()).toEqual({ given: 1 });
});

test('twenty at once add it once, and nobody adds to what somebody else sent', async () => {
  const done = await Promise.allSettled(Array.from({ length: 20 }, () => add()));
  expect(done.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect(await rows()).toHaveLength(2);
  const nils = await joinStaff(product, 'sender', 'nils-of-adding');
  await expect(
    addDocuments(product.deps, nils, { id: sent.id, documents: [later], recipients: null }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
});

test('no more than one dispatch carries, however often they are added', async () => {
  const { deps } = product;
  const found = await findDocument(deps.db.read, later);
  if (found === null) throw new Error('there is none');
  const copies = Array.from({ length: 50 }, (_each, n) => ({
    document: {
      ...found.document,
      id: newId('document', deps.random),
      reference: `COPY-${String(n)}`,
      versionId: newId('version', deps.random),
    },
  }));
  await deps.db.write(async (tx) => {
    for (const { document } of copies)
      await insertDocument(tx, document, {
        ...found.version,
        id: document.versionId,
        documentId: document.id,
      });
  });
  const ids = copies.map(({ document }) => document.id);
  await expect(add({ documents: ids })).rejects.toMatchObject({
    problem: 'dispatch-full',
    fields: { most: 50, carried: 1 },
  });
  expect(await add({ documents: ids.slice(0, 49), recipients: [await recipientAt(MIRA)] })).toEqual(
    {
      given: 1,
    },
  );
  await expect(add()).rejects.toMatchObject({ problem: 'dispatch-full' });
});
