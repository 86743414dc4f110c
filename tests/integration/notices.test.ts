// Who is told of what by mail: staff of what is theirs, recipients of ends to come, keepers of checkpoints.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { desc } from 'drizzle-orm';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import type { NoticeChoices } from '@/core/insight/notices';
import { splitCheckpoints } from '@/core/ledger/checkpoint';
import { workSettings } from '@/contracts/settings';
import { outbox } from '@/server/db/schema/mailing';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { insertStaff } from '@/server/repositories/staff/staff-repository';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { grantRows } from '@/server/services/access/grant-rows';
import { fetchCheckpoint, mailCheckpoint } from '@/server/services/ledger/keep-checkpoints';
import { chooseNotices } from '@/server/services/staff/notice-choices';
import { openDocument } from '@/server/services/reading/open-document';
import { sendNotices } from '@/server/services/mailing/send-notices';
import { tellOfEnds } from '@/server/services/mailing/tell-of-ends';
import { putWorkSettings } from '@/server/services/base/work-settings';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

const NEVER: NoticeChoices = {
  'first-open': 'never',
  refused: 'never',
  'new-place': 'never',
  'new-device': 'never',
  ending: 'never',
};
let product: Product;
let document: DocumentId;
let nils: StaffActor;
const readers = new Map<string, { readonly reader: ReaderActor; readonly token: string }>();

beforeAll(async () => {
  product = await startProduct();
  nils = {
    ...product.ida,
    id: 'stf_n1ls0000000000000000',
    name: 'Nils Fenn',
    email: 'nils@tern-quill.example',
    role: 'sender',
  };
  await product.deps.db.write((tx) =>
    insertStaff(tx, { id: nils.id, name: nils.name, email: nils.email, role: 'sender' }, START),
  );
  document = await protect(product, await drawing(1));
  const { id } = await dispatch(product, [document], ['mira@yard.example', 'jon@yard.example'], {
    until: START + 5 * DAY,
  });
  for (const { address, link } of await grantRows(product.deps, product.ida, { dispatch: id })) {
    const token = link.split('/').at(-1) ?? '';
    readers.set(address, { token, reader: await prove(product, token, address) });
  }
});
afterAll(async () => {
  await product.close();
});

async function open(address: string, network = '203.0.113.24') {
  const { reader, token } = readers.get(address) ?? {};
  if (reader === undefined || token === undefined) throw new Error(`nobody is ${address}`);
  return openDocument(
    product.deps,
    { ...reader, from: { ...reader.from, network } },
    { token, document },
  );
}
/** The newest mails to somebody, codes and links aside. */
async function mailsTo(address: string) {
  const rows = await product.deps.db.read
    .select()
    .from(outbox)
    .orderBy(desc(outbox.createdAt), desc(outbox.id));
  return rows.filter(
    ({ toAddress, dispatchId, urgent }) => toAddress === address && dispatchId === null && !urgent,
  );
}
const later = (ms: number) => {
  product.clock.set(product.deps.clock.now() + ms);
};

describe('at once', () => {
  test('nobody is told who did not choose it, nor of what was before', async () => {
    await open('jon@yard.example');
    await expect(sendNotices(product.deps)).resolves.toBe(0);
    await chooseNotices(product.deps, product.ida, {
      ...NEVER,
      'first-open': 'at-once',
      refused: 'at-once',
    });
    await chooseNotices(product.deps, nils, {
      ...NEVER,
      'first-open': 'at-once',
      refused: 'at-once',
    });
    later(11 * MINUTE);
    await expect(sendNotices(product.deps)).resolves.toBe(0);
  });

  test('anyone who answers for it is told of a first open and not of a second; nobody else is', async () => {
    await open('mira@yard.example');
    await expect(sendNotices(product.deps)).resolves.toBe(1);
    const [mail] = await mailsTo('ida@tern-quill.example');
    expect(mail?.subject).toBe('“Lines plan”: opened');
    expect(mail?.body).toContain('mira@yard.example opened “Lines plan” for the first time');
    expect(await mailsTo(nils.email)).toEqual([]);
    later(13 * HOUR);
    await open('mira@yard.example');
    await expect(sendNotices(product.deps)).resolves.toBe(0);
  });

  test('a flood of refusals is one message, by however many processes', async () => {
    const [row] = await grantRows(product.deps, product.ida, {
      dispatch: (await grantRows(product.deps, product.ida, { document }))[0]?.dispatchId ?? 'dsp_',
    });
    await revokeGrants(product.deps, product.ida, { grants: [row?.id ?? 'grt_'] });
    const address = row?.address ?? '';
    for (let i = 0; i < 60; i++) await open(address);
    const told = await Promise.all([
      sendNotices(product.deps),
      sendNotices(product.deps),
      sendNotices(product.deps),
    ]);
    expect(told.reduce((sum, each) => sum + each, 0)).toBe(1);
    const [mail] = await mailsTo('ida@tern-quill.example');
    expect(mail?.subject).toBe('60 things about your documents');
    expect(mail?.body).toContain('tried to open “Lines plan”');
    expect(mail?.body).toContain('And 20 more.');
    await open(address);
    await expect(sendNotices(product.deps)).resolves.toBe(0);
    later(11 * MINUTE);
    await expect(sendNotices(product.deps)).resolves.toBe(1);
  });
});

describe('a new place', () => {
  test('is told of once, where nobody of the organisation was before', async () => {
    const { deps, ida } = product;
    const paper = await protect(product, await drawing(1), 'Keel');
    const { id } = await dispatchDocuments(deps, ida, {
      documents: [paper],
      recipients: [{ address: 'ada@float.example', name: 'Ada', organisation: 'Float' }],
      terms: { rights: ['read'], from: null, until: null, prints: null },
      subject: 'Keel',
      note: '',
      watermark: [],
      delivery: 'mail' as const,
    });
    const token = (await grantRows(deps, ida, { dispatch: id }))[0]?.link.split('/').at(-1) ?? '';
    const reader = await prove(product, token, 'ada@float.example');
    const from = (network: string) =>
      openDocument(
        deps,
        { ...reader, from: { ...reader.from, network } },
        { token, document: paper },
      );
    await chooseNotices(deps, ida, { ...NEVER, 'new-place': 'at-once' });
    later(11 * MINUTE);
    await from('203.0.113.24');
    await expect(sendNotices(deps)).resolves.toBe(0);
    later(13 * HOUR);
    await from('198.51.100.13');
    await expect(sendNotices(deps)).resolves.toBe(1);
    expect((await mailsTo('ida@tern-quill.example'))[0]?.body).toMatch(
      /Ada \(Float\) opened “Keel” from \S.*, a new place for their organisation/,
    );
    later(13 * HOUR);
    await from('198.51.100.13');
    await expect(sendNotices(deps)).resolves.toBe(0);
  });
});

describe('once a day', () => {
  test('at seven by the organisation’s clock, about what is theirs, with ends to come', async () => {
    await chooseNotices(product.deps, product.ida, { ...NEVER, refused: 'daily', ending: 'daily' });
    product.clock.set(START + 2 * DAY);
    const refused = (await grantRows(product.deps, product.ida, { document })).find(
      ({ revokedAt }) => revokedAt !== null,
    );
    await open(refused?.address ?? '');
    // 05:30 in Oslo the next morning, then 07:00.
    product.clock.set(START + 3 * DAY - 4.5 * HOUR);
    await expect(sendNotices(product.deps)).resolves.toBe(0);
    product.clock.set(START + 3 * DAY - 3 * HOUR);
    await expect(sendNotices(product.deps)).resolves.toBe(1);
    const [mail] = await mailsTo('ida@tern-quill.example');
    expect(mail?.subject).toBe('Your documents since yesterday');
    expect(mail?.body).toContain('what 1 person was given by');
    expect(mail?.body).toContain('was refused: revoked');
    later(2 * HOUR);
    await expect(sendNotices(product.deps)).resolves.toBe(0);
    // The next day there is nothing new: the end was told of.
    later(DAY);
    await expect(sendNotices(product.deps)).resolves.toBe(0);
  });
});

describe('recipients', () => {
  test('are told of an end only where wanted, once, and not who can read for longer or not at all', async () => {
    const { deps, ida, clock } = product;
    const paper = await protect(product, await drawing(1), 'Rudder');
    const now = deps.clock.now();
    await dispatch(
      product,
      [paper],
      ['una@class.example', 'ole@class.example', 'per@class.example'],
      { until: now + 4 * DAY },
    );
    await dispatch(product, [paper], ['ole@class.example'], { until: now + 40 * DAY });
    const per = (await grantRows(deps, ida, { document: paper })).find(
      ({ address }) => address === 'per@class.example',
    );
    await revokeGrants(deps, ida, { grants: [per?.id ?? 'grt_'] });
    await expect(tellOfEnds(deps)).resolves.toBe(0);
    await putWorkSettings(deps, ida, { ...workSettings.parse({}), endsTold: 3 });
    // The first document ends within these days already, for the one who still has it.
    await expect(tellOfEnds(deps)).resolves.toBe(1);
    clock.set(now + 1.5 * DAY);
    const told = await Promise.all([tellOfEnds(deps), tellOfEnds(deps)]);
    expect(told.reduce((sum, each) => sum + each, 0)).toBe(1);
    const [mail] = await mailsTo('una@class.example');
    expect(mail?.subject).toBe('Your access to “Rudder” ends soon');
    expect(mail?.body).toMatch(/“Rudder”, until \d+ \w+ 2026/);
    expect([await mailsTo('ole@class.example'), await mailsTo('per@class.example')]).toEqual([
      [],
      [],
    ]);
    clock.set(now + 2 * DAY);
    await expect(tellOfEnds(deps)).resolves.toBe(0);
  });
});

describe('keepers of checkpoints', () => {
  test('are mailed one a day, which proves what it says; without signing in only where that is wanted', async () => {
    const { deps, ida } = product;
    await expect(mailCheckpoint(deps)).resolves.toBe(0);
    await expect(fetchCheckpoint(deps)).rejects.toMatchObject({ code: 'NOT_FOUND' });
    await putWorkSettings(deps, ida, {
      ...workSettings.parse({}),
      checkpointsTo: ['notary@seal.example', 'audit@seal.example'],
      checkpointsOpen: true,
    });
    await deps.db.write((tx) => signLedger(tx, deps.recorder, deps.clock.now()));
    const sent = await Promise.all([mailCheckpoint(deps), mailCheckpoint(deps)]);
    expect(sent.reduce((sum, each) => sum + each, 0)).toBe(2);
    const [mail] = await mailsTo('notary@seal.example');
    const kept = splitCheckpoints((mail?.body ?? '').replaceAll('\n', '\r\n'));
    expect(kept.map(({ text }) => text)).toEqual([await fetchCheckpoint(deps)]);
    await putWorkSettings(deps, ida, {
      ...workSettings.parse({}),
      checkpointsTo: ['notary@seal.example'],
    });
    await deps.db.write((tx) => signLedger(tx, deps.recorder, deps.clock.now()));
    await expect(mailCheckpoint(deps)).resolves.toBe(0);
    product.clock.set(deps.clock.now() + DAY);
    await expect(mailCheckpoint(deps)).resolves.toBe(1);
  });
});

describe('a kind chosen beside others', () => {
  test('is told of from then on, and of ends that come whatever was told before', async () => {
    const { deps, ida } = product;
    product.clock.set(deps.clock.now() + DAY);
    await chooseNotices(deps, ida, { ...NEVER, 'first-open': 'at-once' });
    const refused = (await grantRows(deps, ida, { document })).find(
      ({ revokedAt }) => revokedAt !== null,
    );
    await open(refused?.address ?? '');
    const soon = await protect(product, await drawing(1), 'Stem');
    await dispatch(product, [soon], ['eva@stem.example'], { until: deps.clock.now() + DAY });
    await chooseNotices(deps, ida, { refused: 'at-once', ending: 'at-once' });
    later(11 * MINUTE);
    await expect(sendNotices(deps)).resolves.toBe(1);
    const [mail] = await mailsTo('ida@tern-quill.example');
    expect(mail?.body).toContain('ends.');
    expect(mail?.body).not.toContain('refused');
    await chooseNotices(deps, ida, NEVER);
  });
});

describe('a new device', () => {
  test('a person who opens on another device is told of once, and not at their first open', async () => {
    const { deps, ida } = product;
    const shared = await protect(product, await drawing(1));
    const who = 'rune@yard.example';
    const { tokenOf } = await dispatch(product, [shared], [who]);
    await chooseNotices(deps, ida, { ...NEVER, 'new-device': 'at-once' });
    const openOn = async (reader: ReaderActor) =>
      openDocument(deps, reader, { token: tokenOf(who), document: shared });
    const [first, second] = [
      await prove(product, tokenOf(who), who),
      await prove(product, tokenOf(who), who),
    ];
    later(11 * MINUTE);
    await openOn(first);
    await expect(sendNotices(deps)).resolves.toBe(0);
    await openOn(second);
    await expect(sendNotices(deps)).resolves.toBe(1);
    const [mail] = await mailsTo('ida@tern-quill.example');
    expect(mail?.body).toContain('rune@yard.example opened');
    expect(mail?.body).toContain('on a device they had not used before');
    later(13 * HOUR);
    await openOn(first);
    await openOn(second);
    await expect(sendNotices(deps)).resolves.toBe(0);
    await chooseNotices(deps, ida, NEVER);
  });
});
