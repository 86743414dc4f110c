// Composing: what each is given apart, who is suggested, drafts in two windows, and what is seen before it leaves.
import { newLayer } from '@/core/watermark/layers';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { EMPTY_SHEET, rowOf } from '@/core/compose/sheet';
import { dispatchInput, type DispatchInput } from '@/contracts/dispatch';
import { keepDraftInput } from '@/contracts/draft';
import { previewPageInput, supposeInput } from '@/contracts/explain';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { grantRows } from '@/server/services/access/grant-rows';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { putWorkSettings } from '@/server/services/base/work-settings';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { addPeople } from '@/server/services/dispatching/add-people';
import { checkRecipients } from '@/server/services/dispatching/check-recipients';
import { keepDraft } from '@/server/services/dispatching/keep-draft';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { startCompose } from '@/server/services/dispatching/start-compose';
import { listPeopleAt, suggestRecipients } from '@/server/services/dispatching/suggest-recipients';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { lookAtUpload } from '@/server/services/documents/look-at-upload';
import { previewPage } from '@/server/services/documents/preview-page';
import { protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { putMarking } from '@/server/services/filing/manage-filing';
import { ledgerInput } from '@/contracts/ledger';
import { listLedger } from '@/server/services/ledger/list-entries';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { blockPerson } from '@/server/services/people/manage-people';
import { supposeAccess } from '@/server/services/policy/suppose-access';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { openDocument } from '@/server/services/reading/open-document';
import { NO_LIMITS } from '@/core/policy/ceiling';
import {
  START,
  drawing,
  inPieces,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let [plan, list]: [DocumentId, DocumentId] = ['doc_', 'doc_'];
let round = 0;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  round++;
  plan = await protect(product, await drawing(1));
  list = await protect(product, await drawing(1), 'Weight list');
});

const terms = { rights: ['read'] as 'read'[], from: null, until: START + 30 * DAY, prints: null };
const address = (name: string) => `${name}${String(round)}@yard.example`;
const input = (over: object): DispatchInput =>
  dispatchInput.parse({
    documents: [plan, list],
    recipients: [],
    terms,
    subject: 'Two papers',
    note: '',
    watermark: [newLayer('tiled', '{address}')],
    delivery: 'by-hand',
    ...over,
  });
const send = async (over: object) => {
  const { id } = await sendDocuments(product.deps, product.ida, input(over));
  if (id === null) throw new Error('it waits for somebody');
  return { id, grants: await grantRows(product.deps, product.ida, { dispatch: id }) };
};

describe('what each is given', () => {
  test('differs in terms and in documents, for people, groups, domains and a link alike', async () => {
    const { id: group } = await putGroup(product.deps, product.ida, {
      id: null,
      name: `Yards ${String(round)}`,
    });
    await send({ recipients: [{ address: address('member') }] });
    const [member] = await findRecipients(product.deps.db.read, [address('member')]);
    await changeMembers(product.deps, product.ida, {
      id: group,
      add: [member?.id ?? 'rcp_'],
      remove: [],
    });
    const printing = { ...terms, rights: ['read', 'print'], prints: 2 };
    const { grants } = await send({
      recipients: [
        { address: address('mira') },
        { address: address('jonas'), terms: printing, without: [list] },
      ],
      groups: [{ id: group, without: [plan] }],
      domains: [{ domain: '@port.example', terms: { ...terms, until: START + DAY } }],
    });
    const told = grants.map(({ address: who, documentId, rights, prints, until }) => ({
      who: who.startsWith('group:') ? 'group' : who,
      which: documentId === plan ? 'plan' : 'list',
      rights: rights.join('+'),
      prints,
      days: ((until ?? 0) - START) / DAY,
    }));
    const expected = (who: string, which: string, over: object = {}) => ({
      who,
      which,
      rights: 'read',
      prints: null,
      days: 30,
      ...over,
    });
    expect(told).toHaveLength(7);
    expect(told).toEqual(
      expect.arrayContaining([
        expected(address('mira'), 'plan'),
        expected(address('mira'), 'list'),
        expected(address('jonas'), 'plan', { rights: 'read+print', prints: 2 }),
        expected('group', 'list'),
        expected(address('member'), 'list'),
        expected('@port.example', 'plan', { days: 1 }),
        expected('@port.example', 'list', { days: 1 }),
      ]),
    );
  });

  test('is what their mail names and what opens, and nothing else', async () => {
    const sent = await send({
      recipients: [{ address: address('mira') }, { address: address('jonas'), without: [list] }],
      delivery: 'mail',
      subject: `Apart ${String(round)}`,
    });
    await deliverMail(product.deps);
    const told = async (who: string) => {
      const [mail] = (await readMailroom(product.deps, { address: who })).messages;
      const { raw } = await readMessage(product.deps, { id: mail?.id ?? '' });
      return ['Lines plan', 'Weight list'].filter((title) => raw.includes(title));
    };
    expect(await told(address('mira'))).toEqual(['Lines plan', 'Weight list']);
    expect(await told(address('jonas'))).toEqual(['Lines plan']);
    const link = sent.grants.find(({ address: who }) => who === address('jonas'))?.link ?? '';
    const token = link.split('/').at(-1) ?? '';
    const reader = await prove(product, token, address('jonas'));
    expect(await openDocument(product.deps, reader, { token, document: plan })).toHaveProperty(
      'licence',
    );
    expect(await openDocument(product.deps, reader, { token, document: list })).toMatchObject({
      reason: 'not-addressed',
    });
  });

  test('is something for everybody, and each document is given to somebody', async () => {
    await expect(
      send({
        recipients: [{ address: address('a') }, { address: address('b'), without: [plan, list] }],
      }),
    ).rejects.toMatchObject({ code: 'INVALID', problem: 'given-nothing' });
    await expect(
      send({ recipients: [{ address: address('a'), without: [list] }] }),
    ).rejects.toMatchObject({ code: 'INVALID', problem: 'document-for-nobody' });
    const { id } = await send({ recipients: [{ address: address('a') }] });
    await expect(
      addPeople(product.deps, product.ida, {
        id,
        recipients: [
          { address: address('late'), name: '', organisation: '', without: [plan, list] },
        ],
        terms,
      }),
    ).rejects.toMatchObject({ problem: 'given-nothing' });
    expect(await findRecipients(product.deps.db.read, [address('b'), address('late')])).toEqual([]);
  });

  test('has an end to come, for whoever it is', async () => {
    await expect(
      send({
        recipients: [],
        domains: [{ domain: '@port.example', terms: { ...terms, until: START } }],
      }),
    ).rejects.toMatchObject({ problem: 'an-end-past' });
  });

  test('stands in the ledger with what its sender left as it is', async () => {
    const { id } = await send({
      recipients: [{ address: address('mira') }],
      terms: { ...terms, until: null },
      waved: ['no-end', 'public-mail'],
    });
    const { rows } = await listLedger(
      product.deps,
      product.ida,
      ledgerInput.parse({
        dispatch: [id],
        action: ['dispatch.sent'],
      }),
    );
    expect(JSON.stringify(rows)).toContain('no-end');
    expect(() => input({ waved: ['blocked'] })).toThrow();
  });
});

describe('people', () => {
  test('are suggested by a part of their name, address or organisation, with groups and organisations', async () => {
    const organisation = `Brackwater ${String(round)}`;
    const { id: group } = await putGroup(product.deps, product.ida, {
      id: null,
      name: `${organisation} bidders`,
    });
    await send({
      recipients: [
        { address: address('zoe'), name: 'Zoe Never', organisation },
        { address: address('mira'), name: 'Mira Kolbe', organisation },
      ],
    });
    const [zoe] = await findRecipients(product.deps.db.read, [address('zoe')]);
    await blockPerson(product.deps, product.ida, {
      id: zoe?.id ?? 'rcp_',
      blocked: true,
      reason: 'x',
    });
    await putWorkSettings(product.deps, product.ida, { ownDomains: ['@yard.example'] });
    const { found } = await suggestRecipients(product.deps, product.ida, { q: organisation });
    expect(found).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ name: 'Mira Kolbe', inside: true, lastSentAt: START }),
        expect.objectContaining({ name: 'Zoe Never', blocked: true }),
        { kind: 'organisation', name: organisation, people: 1 },
        { kind: 'group', id: group, name: `${organisation} bidders`, people: 0 },
      ]),
    );
    // The text's own wildcards stand for themselves.
    expect((await suggestRecipients(product.deps, product.ida, { q: '%' })).found).toEqual([]);
    expect(
      (await listPeopleAt(product.deps, product.ida, { organisation })).people.map(
        (each) => each.address,
      ),
    ).toEqual([address('mira')]);
    const { checks } = await checkRecipients(product.deps, product.ida, {
      addresses: [address('mira'), `mria${String(round)}@yard.example`, 'new@float.example'],
      domains: [],
    });
    expect(checks).toMatchObject([
      { inside: true, known: { lastSentAt: START }, looksLike: null },
      { inside: true, known: null, looksLike: address('mira') },
      { inside: false, known: null, looksLike: null },
    ]);
    await putWorkSettings(product.deps, product.ida, { ownDomains: [] });
  });

  test('are checked two thousand at once among as many known ones', async () => {
    const many = Array.from({ length: 2_000 }, (_each, i) => `p${String(i)}.${address('crowd')}`);
    await send({ recipients: many.map((each) => ({ address: each })) });
    const { checks } = await checkRecipients(product.deps, product.ida, {
      addresses: many.map((each) => each.replace('crowd', 'crowds')),
      domains: [],
    });
    expect(checks).toHaveLength(2_000);
    expect(checks.every(({ looksLike }) => looksLike !== null)).toBe(true);
  });
});

describe('a draft', () => {
  const body = () => ({
    sheet: { ...EMPTY_SHEET, documents: [plan], rows: [rowOf(address('mira'), 'person')] },
    subject: 'Half made',
    note: '',
    watermark: [],
    way: { form: 'link', delivery: 'mail', titleOnCover: false, noteInMail: true, reason: '' },
    waved: [],
  });
  const keep = (over: object) =>
    keepDraft(product.deps, product.ida, keepDraftInput.parse({ id: null, body: body(), ...over }));

  test('that another window changed is not overwritten', async () => {
    const first = await keep({});
    const second = await keep({ id: first.id, seen: first.revision });
    expect(second).toEqual({ id: first.id, revision: first.revision + 1 });
    await expect(
      keep({ id: first.id, seen: first.revision, body: { ...body(), subject: 'Lost' } }),
    ).rejects.toMatchObject({ code: 'CONFLICT', problem: 'draft-changed' });
    const { draft } = await startCompose(product.deps, product.ida, {
      draft: first.id,
      chosen: [],
    });
    expect(draft).toMatchObject({ revision: second.revision, body: { subject: 'Half made' } });
  });

  test('is of use although one of its documents was revoked meanwhile', async () => {
    const { id } = await keep({});
    await revokeDocument(product.deps, product.ida, { id: plan, reason: 'x' });
    const start = await startCompose(product.deps, product.ida, { draft: id, chosen: [] });
    expect(start.picked).toMatchObject([{ id: plan, revoked: true }]);
  });
});

test('what a dispatch begins with holds no seal of the database', async () => {
  await putCeiling(product.deps, product.ida, {
    level: 'organisation',
    subject: '',
    limits: { ...NO_LIMITS, days: 400 },
    seen: null,
  } as never);
  const start = await startCompose(product.deps, product.ida, { draft: null, chosen: [] });
  expect(start.ceilings.length + start.rules.length).toBeGreaterThan(0);
  for (const row of [...start.ceilings, ...start.rules, ...start.defaults])
    expect(row).not.toHaveProperty('seal');
});

describe('what is seen before it leaves', () => {
  const suppose = (over: object) =>
    supposeAccess(
      product.deps,
      product.ida,
      supposeInput.parse({ document: plan, address: address('mira'), terms, ...over }),
    );

  test('is the decision as if it had been given, also at another time or place', async () => {
    expect(await suppose({})).toMatchObject({ opens: true, until: START + 30 * DAY });
    expect(await suppose({ at: START + 31 * DAY })).toMatchObject({
      opens: false,
      reason: 'expired',
    });
    const nordic = { ...terms, conditions: { countries: ['NO'] } };
    expect(await suppose({ terms: nordic, country: 'NO' })).toMatchObject({ opens: true });
    expect(await suppose({ terms: nordic, country: 'BR' })).toMatchObject({
      opens: false,
      reason: 'place-not-allowed',
    });
    expect(await findRecipients(product.deps.db.read, [address('mira')])).toEqual([]);
  });

  test('counts what they hold already, and is recorded once', async () => {
    const printing = { ...terms, rights: ['read', 'print'] };
    await send({ recipients: [{ address: address('mira'), terms: printing }] });
    const verdicts = (await suppose({})).rights;
    expect(verdicts.find(({ right }) => right === 'print')?.verdict).toMatchObject({
      granted: true,
    });
    await suppose({ at: START + DAY });
    const [mira] = await findRecipients(product.deps.db.read, [address('mira')]);
    const { rows } = await listLedger(
      product.deps,
      product.ida,
      ledgerInput.parse({
        recipient: [mira?.id],
        action: ['staff.viewed'],
      }),
    );
    expect(rows.filter((row) => JSON.stringify(row).includes('staff.viewed'))).toHaveLength(1);
  });

  test('is the first page, which says whose preview it is, for those who answer for it', async () => {
    const asked = previewPageInput.parse({
      id: plan,
      address: address('mira'),
      watermark: [newLayer('tiled', '{address}')],
      width: 300,
    });
    const picture = await previewPage(product.deps, product.ida, asked);
    expect(picture).toMatchObject({ width: 300, type: 'image/png' });
    const other = await previewPage(product.deps, product.ida, { ...asked, watermark: [] });
    expect(Buffer.compare(Buffer.from(picture.bytes), Buffer.from(other.bytes))).not.toBe(0);
    const nils = await joinStaff(product, 'sender', `nils-${String(round)}`);
    await expect(previewPage(product.deps, nils, asked)).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
  });
});

describe('a file that is dropped', () => {
  const upload = async (bytes: Uint8Array, fileName: string) => {
    const { id } = await beginUpload(product.deps, product.ida, { fileName, bytes: bytes.length });
    await receivePart(product.deps, product.ida, { id, offset: 0 }, inPieces(bytes));
    return id;
  };

  test('is looked at: its title, a free reference, and the marking it names', async () => {
    await putMarking(product.deps, product.ida, {
      id: null,
      name: 'Outline specification',
      meaning: '',
    });
    const bytes = Buffer.concat([await drawing(1), Buffer.from('\n% no other test brings it')]);
    const id = await upload(bytes, 'Weights AB-77.pdf');
    const looked = await lookAtUpload(product.deps, product.ida, { id });
    expect(looked).toMatchObject({
      pages: 1,
      reference: 'AB-77',
      marking: { name: 'Outline specification' },
    });
    const document = await protectDocument(product.deps, product.ida, {
      id,
      title: looked.title,
      reference: looked.reference,
      markingId: looked.marking?.id ?? null,
    });
    expect(document.id).toMatch(/^doc_/);
    const again = await upload(bytes, 'Weights AB-77.pdf');
    expect(await lookAtUpload(product.deps, product.ida, { id: again })).toMatchObject({
      reference: 'AB-77-2',
    });
  });

  test('is looked at by whoever brought it alone, and leaves nothing where it cannot be shown', async () => {
    const id = await upload(await drawing(1), 'a.pdf');
    const nils = await joinStaff(product, 'sender', `nils-looks-${String(round)}`);
    await expect(lookAtUpload(product.deps, nils, { id })).rejects.toMatchObject({
      problem: 'upload-over',
    });
    const broken = await upload(Buffer.from('%PDF-1.7\nnothing more'), 'broken.pdf');
    await expect(lookAtUpload(product.deps, product.ida, { id: broken })).rejects.toMatchObject({
      name: 'ContentError',
    });
    await expect(lookAtUpload(product.deps, product.ida, { id: broken })).rejects.toMatchObject({
      problem: 'upload-over',
    });
  });
});
