// Ceilings and conditions, from the screens' services to what a reader gets.
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import type { CeilingInput } from '@/contracts/ceiling';
import { ceilingInput } from '@/contracts/ceiling';
import { listRequests } from '@/server/services/requests/answer-requests';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { ReaderActor } from '@/server/services/base/deps';
import { explainAccess } from '@/server/services/policy/explain-access';
import { grantRows } from '@/server/services/access/grant-rows';
import { previewCeiling, putCeiling, viewCeilings } from '@/server/services/policy/manage-ceilings';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { blockPerson, listPeople } from '@/server/services/people/manage-people';
import { makeFolder, putMarking } from '@/server/services/filing/manage-filing';
import { momentWords } from '@/server/mail/moment-words';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { openDocument } from '@/server/services/reading/open-document';
import { renderPage } from '@/server/services/reading/read-pages';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let seen: number | null = null;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(2));
});
afterAll(async () => {
  await product.close();
});

const ceiling = (
  limits: Partial<Limits>,
  of: Pick<CeilingInput, 'level' | 'subject'> = { level: 'organisation', subject: '' },
  known: number | null = null,
): CeilingInput => ({ ...of, limits: { ...NO_LIMITS, ...limits }, seen: known });
const open = async (reader: ReaderActor, token: string) =>
  openDocument(product.deps, reader, { token, document });

describe('a ceiling', () => {
  let sent: Awaited<ReturnType<typeof dispatch>>;
  let reader: ReaderActor;
  beforeAll(async () => {
    sent = await dispatch(product, [document], ['mira@x.example', 'per@x.example'], {
      rights: ['read', 'print'],
      prints: null,
    });
    await deliverMail(product.deps);
    reader = await prove(product, sent.tokenOf('mira@x.example'), 'mira@x.example');
  });

  test('says whom it would touch before it is set, and changes nothing by saying so', async () => {
    const impact = await previewCeiling(
      product.deps,
      product.ida,
      ceiling({ rights: ['read'], days: 10 }),
    );
    expect(impact).toMatchObject({
      pairs: 2,
      people: 2,
      documents: 1,
      rights: [{ right: 'print', lost: { people: 2 }, gained: { people: 0 } }],
      endNow: { people: 0 },
      endSooner: { people: 2 },
    });
    expect(impact.rows.map(({ name, lost, after }) => [name, lost, after])).toEqual([
      ['mira@x.example', ['print'], START + 10 * DAY],
      ['per@x.example', ['print'], START + 10 * DAY],
    ]);
    expect(await open(reader, sent.tokenOf('mira@x.example'))).toMatchObject({
      outcome: 'granted',
      rights: { print: { granted: true } },
    });
  });

  test('takes from what was sent before, and says so wherever it shows', async () => {
    ({ setAt: seen } = await putCeiling(
      product.deps,
      product.ida,
      ceiling({ rights: ['read'], days: 10 }),
    ));
    expect(await open(reader, sent.tokenOf('mira@x.example'))).toMatchObject({
      outcome: 'granted',
      until: START + 10 * DAY,
      rights: { print: { granted: false, why: 'above-ceiling' } },
    });
    expect((await grantRows(product.deps, product.ida, { document }))[0]).toMatchObject({
      rights: ['read', 'print'],
      until: START + 30 * DAY,
      capped: { rights: ['read'], until: START + 10 * DAY },
    });
    const explained = await explainAccess(product.deps, product.ida, {
      document,
      recipient: sent.grants[0]?.recipientId ?? 'rcp_',
      at: null,
    });
    expect(explained.rights.find(({ right }) => right === 'print')?.reason).toMatchObject({
      level: 'organisation',
      setByName: 'Ida Roe',
      setAt: START,
      changes: [{ kind: 'raise-ceiling', limit: 'rights' }],
    });
  });

  test('ends access that it leaves no time for, which what-if foresees', async () => {
    const then = {
      document,
      recipient: sent.grants[0]?.recipientId ?? ('rcp_' as const),
      at: START + 11 * DAY,
    };
    expect(await explainAccess(product.deps, product.ida, then)).toMatchObject({
      opens: false,
      reason: 'expired',
      why: { level: 'organisation', changes: [{ kind: 'raise-ceiling', limit: 'days' }] },
    });
  });

  test('is not set over one that somebody else set meanwhile', async () => {
    await expect(putCeiling(product.deps, product.ida, ceiling({ days: 5 }))).rejects.toMatchObject(
      { code: 'CONFLICT' },
    );
    expect(await viewCeilings(product.deps)).toMatchObject([
      { level: 'organisation', limits: { days: 10 }, setBy: 'Ida Roe' },
    ]);
  });

  test('is undone by what it was, and everybody has again what they were given', async () => {
    const { before } = await putCeiling(product.deps, product.ida, ceiling({}, undefined, seen));
    expect(before).toMatchObject({ rights: ['read'], days: 10 });
    expect(await viewCeilings(product.deps)).toEqual([]);
    expect(await open(reader, sent.tokenOf('mira@x.example'))).toMatchObject({
      until: START + 30 * DAY,
      rights: { print: { granted: true } },
    });
  });

  test('of a folder reaches what lies in folders inside it, of a marking what bears it, and nothing else', async () => {
    const { deps, ida } = product;
    const { id: outer } = await makeFolder(deps, ida, { name: 'Outer', parentId: null });
    const { id: inner } = await makeFolder(deps, ida, { name: 'Inner', parentId: outer });
    const { id: marking } = await putMarking(deps, ida, { id: null, name: 'Close', meaning: '' });
    const touched = async (of: Pick<CeilingInput, 'level' | 'subject'>) =>
      (await previewCeiling(deps, ida, ceiling({ rights: ['read'] }, of))).pairs;
    expect([
      await touched({ level: 'folder', subject: outer }),
      await touched({ level: 'marking', subject: marking }),
    ]).toEqual([0, 0]);
    await fileDocuments(deps, ida, { documents: [document], folderId: inner, markingId: marking });
    expect([
      await touched({ level: 'folder', subject: outer }),
      await touched({ level: 'marking', subject: marking }),
      await touched({ level: 'document', subject: document }),
    ]).toEqual([2, 2, 2]);
    // Lists count what the ceilings leave, as soon as the document is filed there, and no longer once it is elsewhere.
    const live = async () => (await listPeople(deps, ida, { q: 'mira@' })).rows[0]?.live;
    expect(await live()).toBe(1);
    const { setAt } = await putCeiling(
      deps,
      ida,
      ceiling({ days: 1 }, { level: 'folder', subject: outer }),
    );
    product.clock.set(START + 2 * DAY);
    expect(await live()).toBe(0);
    await fileDocuments(deps, ida, { documents: [document], folderId: null });
    expect(await live()).toBe(1);
    await putCeiling(deps, ida, ceiling({}, { level: 'folder', subject: outer }, setAt));
    product.clock.set(START);
    await expect(
      previewCeiling(deps, ida, ceiling({ days: 1 }, { level: 'folder', subject: 'fld_gone' })),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test.each([
    [{ rights: ['print'] }, 'Read'],
    [{ networks: ['192.0.2.0/33'] }, 'not an IP address range'],
    [{ networks: ['10.0.0'] }, 'not an IP address range'],
    [{ countries: ['ZZZ'] }, 'not a country'],
    [{ days: 0 }, ''],
    [{ moon: 'full' }, ''],
  ])('that makes no sense is refused: %j', (limits, words) => {
    const read = ceilingInput.safeParse({
      level: 'organisation',
      subject: '',
      limits: { ...NO_LIMITS, ...limits },
      seen: null,
    });
    expect(read.success).toBe(false);
    expect(read.error?.message).toContain(words);
  });

  test('that cannot have effect says so', async () => {
    expect(
      (await previewCeiling(product.deps, product.ida, ceiling({ rights: ['read'], prints: 2 })))
        .idle,
    ).toEqual(['A number of prints has no effect where printing is not allowed.']);
  });
});

describe('conditions', () => {
  const given = async (
    address: string,
    conditions: NonNullable<Parameters<typeof dispatch>[3]>['conditions'],
  ) => {
    const sent = await dispatch(product, [document], [address], { conditions });
    await deliverMail(product.deps);
    return {
      token: sent.tokenOf(address),
      reader: await prove(product, sent.tokenOf(address), address),
      grant: sent.grants[0],
    };
  };

  test('opens are counted, and one that goes on is not counted against itself', async () => {
    const { token, reader } = await given('once@x.example', { opens: 1 });
    const first = await open(reader, token);
    if (first.outcome !== 'granted') throw new Error(first.reason);
    expect(
      await renderPage(product.deps, reader, { licence: first.licence, page: 1, width: 400 }),
    ).toHaveProperty('bytes');
    expect(await open(reader, token)).toMatchObject({ outcome: 'granted', licence: first.licence });
    const elsewhere = await prove(product, token, 'once@x.example');
    expect(await open(elsewhere, token)).toMatchObject({
      outcome: 'refused',
      reason: 'opens-used-up',
    });
    expect(
      await renderPage(product.deps, reader, { licence: first.licence, page: 2, width: 400 }),
    ).toHaveProperty('bytes');
  });

  test('time runs from the first open', async () => {
    const { token, reader } = await given('hour@x.example', { within: HOUR });
    product.clock.set(START + 2 * HOUR);
    expect(await open(reader, token)).toMatchObject({ outcome: 'granted' });
    expect(await open(reader, token)).toMatchObject({ until: START + 3 * HOUR });
    product.clock.set(START + 3 * HOUR);
    expect(await open(reader, token)).toMatchObject({ outcome: 'refused', reason: 'expired' });
    product.clock.set(START);
  });

  test('networks, countries, hours and devices are held at every open, and at every page', async () => {
    const { token, reader, grant } = await given('there@x.example', {
      networks: ['203.0.113.0/24'],
      rememberedDevice: false,
    });
    const first = await open(reader, token);
    if (first.outcome !== 'granted' || grant === undefined) throw new Error('not opened');
    const elsewhere: ReaderActor = { ...reader, from: { ...reader.from, network: '198.51.100.4' } };
    expect(await open(elsewhere, token)).toMatchObject({ reason: 'network-not-allowed' });
    expect(
      await renderPage(product.deps, elsewhere, { licence: first.licence, page: 1, width: 400 }),
    ).toMatchObject({ outcome: 'refused', reason: 'network-not-allowed' });
    const change = async (
      revision: number,
      conditions: NonNullable<Parameters<typeof changeGrants>[2]['changes'][number]['conditions']>,
    ) => {
      await changeGrants(product.deps, product.ida, {
        changes: [{ grant: grant.id, revision, conditions }],
      });
      return open(reader, token);
    };
    expect(await change(1, { countries: ['XC'] })).toMatchObject({ reason: 'place-not-allowed' });
    // It is ten in Oslo, on a Wednesday.
    expect(await change(2, { hours: { days: [3], from: 8 * 60, to: 10 * 60 } })).toMatchObject({
      reason: 'hours-not-allowed',
    });
    expect(await change(3, { rememberedDevice: true })).toMatchObject({
      reason: 'device-not-accepted',
    });
    expect(await change(4, { hours: { days: [3], from: 10 * 60, to: 11 * 60 } })).toMatchObject({
      outcome: 'granted',
    });
  });

  test('what-if answers for a place and a device', async () => {
    const { grant } = await given('if@x.example', { countries: ['XA'], rememberedDevice: true });
    const ask = (more: Partial<Parameters<typeof explainAccess>[2]>) =>
      explainAccess(product.deps, product.ida, {
        document,
        recipient: grant?.recipientId ?? 'rcp_',
        ...more,
      });
    expect(await ask({})).toMatchObject({
      opens: true,
      ways: [{ conditions: ['only from XA', 'only on a remembered device'] }],
    });
    expect(await ask({ network: '198.51.100.9' })).toMatchObject({
      opens: false,
      reason: 'place-not-allowed',
      why: { level: 'grant', changes: [{ kind: 'change-condition', condition: 'countries' }] },
    });
    expect(await ask({ network: '203.0.113.12' })).toMatchObject({ opens: true });
    expect(await ask({ address: 'MIRA@x.example' })).toMatchObject({
      opens: true,
      person: 'mira@x.example',
      ways: [{ conditions: [] }],
    });
    await expect(ask({ address: 'nobody@x.example' })).rejects.toMatchObject({ code: 'NOT_FOUND' });
    expect(await ask({ device: 'visit' })).toMatchObject({ reason: 'device-not-accepted' });
  });
});

test('a request that a ceiling would take says so before it is answered', async () => {
  const { deps, ida } = product;
  const sent = await dispatch(product, [document], ['asks@x.example'], { until: START + 10 * DAY });
  const token = sent.tokenOf('asks@x.example');
  const reader = await prove(product, token, 'asks@x.example');
  await askForMore(deps, reader, {
    token,
    document,
    right: 'print',
    until: START + 20 * DAY,
    reason: 'for the yard',
  });
  const above = async () =>
    (await listRequests(deps, ida)).find(({ address }) => address === 'asks@x.example')?.above;
  expect(await above()).toEqual({ right: null, until: null });
  const { setAt } = await putCeiling(deps, ida, ceiling({ rights: ['read'], days: 15 }));
  expect(await above()).toEqual({
    right: 'the organisation',
    until: { at: START + 15 * DAY, by: 'the organisation' },
  });
  await putCeiling(deps, ida, ceiling({}, undefined, setAt));
});

test('who ended access, and when, is said where somebody did', async () => {
  const { deps, ida, clock } = product;
  const sent = await dispatch(product, [document], ['ended@x.example']);
  const grant = sent.grants[0];
  if (grant === undefined) throw new Error('no grant');
  const why = async () =>
    (await explainAccess(deps, ida, { document, recipient: grant.recipientId })).why;
  clock.set(START + HOUR);
  await revokeGrants(deps, ida, { grants: [grant.id] });
  expect(await why()).toMatchObject({
    level: 'grant',
    setByName: 'Ida Roe',
    setAt: START + HOUR,
    ended: true,
    changes: [{ kind: 'reinstate-grant' }],
  });
  clock.set(START + 2 * HOUR);
  await revokeDocument(deps, ida, { id: document });
  expect(await why()).toMatchObject({
    level: 'document',
    setByName: 'Ida Roe',
    setAt: START + 2 * HOUR,
    ended: true,
    changes: [{ kind: 'reinstate-document' }, { kind: 'reinstate-grant' }],
  });
  await blockPerson(deps, ida, { id: grant.recipientId, blocked: true });
  expect(await why()).toMatchObject({
    level: 'recipient',
    setByName: 'Ida Roe',
    setAt: START + 2 * HOUR,
    ended: true,
    changes: [{ kind: 'unblock' }, { kind: 'reinstate-document' }, { kind: 'reinstate-grant' }],
  });
});

test('mail, reader and dispatch give the same end: the one that ceilings leave', async () => {
  const paper = await protect(product, await drawing(1), 'Under a ceiling');
  await putCeiling(
    product.deps,
    product.ida,
    ceiling({ days: 3 }, { level: 'document', subject: paper }),
  );
  const sent = await dispatch(product, [paper], ['end@x.example'], { until: START + 60 * DAY });
  await deliverMail(product.deps);
  const [grant] = await grantRows(product.deps, product.ida, { dispatch: sent.id });
  const reader = await prove(product, sent.tokenOf('end@x.example'), 'end@x.example');
  const opened = await openDocument(product.deps, reader, {
    token: sent.tokenOf('end@x.example'),
    document: paper,
  });
  const end = grant?.capped?.until ?? 0;
  expect(end).toBeGreaterThan(START);
  expect(grant?.capped?.byCeiling).toBe(true);
  expect(opened).toMatchObject({ outcome: 'granted', until: end });
  const { messages } = await readMailroom(product.deps, { address: 'end@x.example' });
  const { raw } = await readMessage(product.deps, {
    id: messages.find(({ subject }) => subject === 'For you')?.id ?? '',
  });
  expect((await simpleParser(raw)).text).toContain(`until ${momentWords(end, 'Europe/Oslo')}`);
});

test('an end that follows from the first open is shown, and is not put down to a ceiling', async () => {
  const paper = await protect(product, await drawing(1), 'An hour from the first open');
  const sent = await dispatch(product, [paper], ['hour@x.example'], {
    until: START + 60 * DAY,
    conditions: { within: HOUR },
  });
  const token = sent.tokenOf('hour@x.example');
  const rowNow = async () => (await grantRows(product.deps, product.ida, { dispatch: sent.id }))[0];
  const before = (await rowNow())?.capped ?? null;
  const opened = await openDocument(product.deps, await prove(product, token, 'hour@x.example'), {
    token,
    document: paper,
  });
  const { capped } = (await rowNow()) ?? {};
  expect(opened).toMatchObject({ outcome: 'granted', until: capped?.until });
  expect(capped?.byCeiling).toBe(before?.byCeiling ?? false);
});
