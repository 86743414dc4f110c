// Sending by hand, adding people to a dispatch, giving several people other rights, and what is known about a person.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { EMPTY_SHEET, LINK_KEY, rowOf } from '@/core/compose/sheet';
import { changePersonInput } from '@/contracts/people';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { changeDemo, viewDemo } from '@/server/services/demo/change-demo';
import { dispatchInput } from '@/contracts/dispatch';
import { keepDraftInput } from '@/contracts/draft';
import { keepDraft } from '@/server/services/dispatching/keep-draft';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { startCompose } from '@/server/services/dispatching/start-compose';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { addPeople } from '@/server/services/dispatching/add-people';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { mailAgain } from '@/server/services/dispatching/mail-links';
import { grantRows } from '@/server/services/access/grant-rows';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { changePerson, listPeople, viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { viewToday } from '@/server/services/overview/view-today';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let document: DocumentId;
let round = 0;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  round++;
  document = await protect(product, await drawing(1));
});

const terms = { rights: ['read'] as 'read'[], from: null, until: START + 30 * DAY, prints: null };
const person = (name: string) => ({
  address: `${name}${String(round)}@yard.example`,
  name,
  organisation: 'The Yard',
});
const mailTo = async (address: string) => {
  await deliverMail(product.deps);
  return (await readMailroom(product.deps, { address })).messages;
};

test('links carried by hand lead to the document, and no message goes out', async () => {
  const mira = person('mira');
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: [mira],
    terms,
    subject: 'By hand',
    note: '',
    watermark: [],
    delivery: 'by-hand',
  });
  expect(await mailTo(mira.address)).toEqual([]);
  const detail = await viewDispatch(product.deps, product.ida, { id });
  expect(detail).toMatchObject({
    delivery: 'by-hand',
    mail: [],
  });
  const token = detail.grants[0]?.link.split('/').at(-1) ?? '';
  expect(
    await openDocument(product.deps, await prove(product, token, mira.address), {
      token,
      document,
    }),
  ).toMatchObject({ outcome: 'granted' });
});

test('a link is mailed again to those who can still open something, and to nobody else', async () => {
  const [mira, jonas] = [person('mira'), person('jonas')];
  const sent = await dispatch(product, [document], [mira.address, jonas.address]);
  const idOf = (address: string) =>
    sent.grants.find((grant) => grant.address === address)?.recipientId ?? 'rcp_';
  await mailTo(mira.address);
  await revokeGrants(product.deps, product.ida, {
    grants: sent.grants.filter((grant) => grant.address === jonas.address).map(({ id }) => id),
  });
  expect(
    await mailAgain(product.deps, product.ida, {
      id: sent.id,
      recipients: [idOf(mira.address), idOf(jonas.address)],
    }),
  ).toEqual({ mailed: 1 });
  expect((await mailTo(mira.address)).map(({ subject }) => subject)).toEqual([
    'For you',
    'For you',
  ]);
  expect(await mailTo(jonas.address)).toHaveLength(1);
  await expect(
    mailAgain(product.deps, product.ida, { id: sent.id, recipients: [idOf(jonas.address)] }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  const sender = await joinStaff(product, 'sender', `again${String(round)}`);
  await expect(
    mailAgain(product.deps, sender, { id: sent.id, recipients: [idOf(mira.address)] }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
});

describe('adding people to a dispatch', () => {
  test('gives them its documents on their own terms, mails them, and leaves everybody else as they were', async () => {
    const sent = await dispatch(product, [document], [person('mira').address]);
    const before = await grantRows(product.deps, product.ida, { dispatch: sent.id });
    const [jonas, lena] = [person('jonas'), person('lena')];
    await addPeople(product.deps, product.ida, {
      id: sent.id,
      recipients: [
        jonas,
        { ...lena, terms: { ...terms, rights: ['read', 'copy'], until: START + DAY } },
      ],
      terms,
    });
    const after = await grantRows(product.deps, product.ida, { dispatch: sent.id });
    expect(after.find(({ id }) => id === before[0]?.id)).toEqual(before[0]);
    expect(after.map(({ name, rights, until }) => [name, rights.join(' '), until])).toEqual(
      expect.arrayContaining([
        ['jonas', 'read', START + 30 * DAY],
        ['lena', 'read copy', START + DAY],
      ]),
    );
    expect((await mailTo(jonas.address)).map(({ subject }) => subject)).toEqual(['For you']);
    expect(
      (
        await verifyLedger(product.deps.db.read, {
          publicKey: product.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
  });

  test('adds nobody where one is there already, or where the dispatch is somebody else’s', async () => {
    const mira = person('mira');
    const sent = await dispatch(product, [document], [mira.address]);
    const other = person('other');
    await expect(
      addPeople(product.deps, product.ida, { id: sent.id, recipients: [other, mira], terms }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    const sender = await joinStaff(product, 'sender', `sender${String(round)}`);
    await expect(
      addPeople(product.deps, sender, { id: sent.id, recipients: [other], terms }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect((await listPeople(product.deps, product.ida, { q: other.address })).total).toBe(0);
  });
});

describe('other rights for several', () => {
  test('are given together, undone to what each had, and refused where they cannot stand', async () => {
    const sent = await dispatch(product, [document], [person('a').address, person('b').address], {
      rights: ['read', 'print'],
      prints: 2,
    });
    const changes = sent.grants.map((grant) => ({
      grant: grant.id,
      revision: grant.revision,
      rights: ['read', 'copy'] as ('read' | 'copy')[],
      prints: null,
    }));
    const { changed } = await changeGrants(product.deps, product.ida, { changes });
    expect(
      (await grantRows(product.deps, product.ida, { dispatch: sent.id })).map(
        ({ rights, prints, until }) => [rights.join(' '), prints, until],
      ),
    ).toEqual([
      ['read copy', null, START + 30 * DAY],
      ['read copy', null, START + 30 * DAY],
    ]);
    await changeGrants(product.deps, product.ida, {
      changes: changed.map(({ grant, revision, before }) => ({
        grant,
        revision,
        ...before,
        rights: before.rights as ('read' | 'print')[],
      })),
    });
    expect(
      (await grantRows(product.deps, product.ida, { dispatch: sent.id })).map(
        ({ rights, prints }) => [rights.join(' '), prints],
      ),
    ).toEqual([
      ['read print', 2],
      ['read print', 2],
    ]);
    const [first] = await grantRows(product.deps, product.ida, { dispatch: sent.id });
    await expect(
      changeGrants(product.deps, product.ida, {
        changes: [
          { grant: first?.id ?? 'grt_', revision: first?.revision ?? 0, rights: ['read', 'keep'] },
        ],
      }),
    ).rejects.toMatchObject({ code: 'INVALID' });
  });
});

test('what is known about a person is corrected, and their ends are mailed in their own zone', async () => {
  const mira = person('mira');
  const sent = await dispatch(product, [document], [mira.address]);
  const [grant] = sent.grants;
  await changePerson(product.deps, product.ida, {
    id: grant?.recipientId ?? 'rcp_',
    name: 'Mira Kolbe',
    organisation: 'Brackwater Yard',
    zone: 'Asia/Tokyo',
    language: 'nb',
  });
  expect(
    await viewPerson(product.deps, product.ida, { id: grant?.recipientId ?? 'rcp_' }),
  ).toMatchObject({
    name: 'Mira Kolbe',
    organisation: 'Brackwater Yard',
    zone: 'Asia/Tokyo',
    language: 'nb',
    documents: 1,
    live: 1,
  });
  await dispatch(product, [document], [mira.address]);
  const [newest] = await mailTo(mira.address);
  expect((await readMessage(product.deps, { id: newest?.id ?? '' })).raw).toContain('Asia/Tokyo');
  for (const wrong of [{ zone: 'Nowhere/Here' }, { language: 'not a language' }])
    expect(changePersonInput.safeParse({ id: grant?.recipientId, ...wrong }).success).toBe(false);
});

describe('the demo', () => {
  test('puts the clock forward, never back, and open access ends with it', async () => {
    const mira = person('mira');
    const sent = await dispatch(product, [document], [mira.address], { until: START + 2 * DAY });
    const token = sent.tokenOf(mira.address);
    const reader = await prove(product, token, mira.address);
    const now = product.deps.clock.now();
    await changeDemo(product.deps, product.ida, { forward: 3 * DAY });
    expect(product.deps.clock.now()).toBe(now + 3 * DAY);
    expect(await openDocument(product.deps, reader, { token, document })).toMatchObject({
      outcome: 'refused',
      reason: 'expired',
    });
    const bar = await viewDemo(product.deps, { network: null, agent: null });
    expect(bar).toMatchObject({ ahead: 3 * DAY });
    expect(bar?.mailboxes.map(({ address }) => address)).toContain(mira.address);
    await expect(
      changeDemo({ ...product.deps, demo: null }, product.ida, { forward: DAY }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
    expect(
      await viewDemo({ ...product.deps, demo: null }, { network: null, agent: null }),
    ).toBeNull();
    product.deps.demo?.setOffset(0);
  });
});

test('an organisation seen where it never was stands on Today', async () => {
  const mira = { ...person('mira'), organisation: 'Far Yard' };
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: [mira],
    terms,
    subject: 'Somewhere',
    note: '',
    watermark: [],
    delivery: 'mail',
  });
  const token =
    (await grantRows(product.deps, product.ida, { dispatch: id }))[0]?.link.split('/').at(-1) ?? '';
  const reader = await prove(product, token, mira.address);
  await openDocument(product.deps, reader, { token, document });
  product.clock.set(START + 20 * DAY);
  expect((await viewToday(product.deps, product.ida)).elsewhere).toEqual([]);
  await openDocument(
    product.deps,
    { ...reader, from: { ...reader.from, network: '198.51.100.200' } },
    { token, document },
  );
  expect((await viewToday(product.deps, product.ida)).elsewhere).toMatchObject([
    { organisation: 'Far Yard', place: 'Costa Brume', opens: 1, usual: ['Port Brackwater'] },
  ]);
});

test('a draft is gone with its dispatch, and stays where that fails or it is somebody else’s', async () => {
  const way = {
    form: 'link' as const,
    delivery: 'by-hand' as const,
    titleOnCover: true,
    noteInMail: true,
    reason: 'because',
  };
  const rows = [rowOf('mira@x.example', 'person'), rowOf(LINK_KEY, 'link')];
  const body = {
    sheet: { ...EMPTY_SHEET, documents: [document], rows, common: terms },
    subject: 'Half made',
    note: '',
    watermark: [],
    way,
    waved: [],
  };
  const { id: draft } = await keepDraft(
    product.deps,
    product.ida,
    keepDraftInput.parse({ id: null, body }),
  );
  const drafts = async () =>
    (await startCompose(product.deps, product.ida, { draft, chosen: [] })).draft;
  expect((await drafts())?.body).toEqual(body);
  const input = dispatchInput.parse({
    draft,
    documents: [document],
    recipients: [person('mira')],
    terms,
    subject: 'Half made',
    note: '',
    watermark: [],
    delivery: 'by-hand',
  });
  const nils = await joinStaff(product, 'sender', 'nils-of-the-draft');
  await expect(
    sendDocuments(product.deps, product.ida, { ...input, documents: ['doc_00000000000000000000'] }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  await sendDocuments(product.deps, nils, {
    ...input,
    documents: [await protect({ ...product, ida: nils }, await drawing(1))],
  });
  expect(await drafts()).not.toBeNull();
  await sendDocuments(product.deps, product.ida, input);
  expect(await drafts()).toBeNull();
});
