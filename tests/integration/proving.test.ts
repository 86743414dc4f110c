import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { simpleParser } from 'mailparser';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type { Entry } from '@/core/ledger/entry';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { challenges } from '@/server/db/schema/reading';
import { outbox } from '@/server/db/schema/mailing';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { listLedger } from '@/server/services/ledger/list-entries';
import { viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { sharedWith } from '@/server/services/reading/shared-with';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { signIn } from '@/server/services/staff/sign-in';
import { setUpOrganisation } from '@/server/services/staff/set-up-organisation';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import {
  dispatch,
  drawing,
  newPublicKey,
  newestCode,
  protect,
  prove,
  startProduct,
  stranger,
  type Product,
} from '../support/product';

let product: Product;
let token: string;
let mira: string;
let people = 0;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  people++;
  mira = `mira.${String(people)}@brackwater.example`;
  token = (await dispatch(product, [await protect(product, await drawing(1))], [mira])).tokenOf(
    mira,
  );
});

const enter = async (code: string, browser = 'browser-1', address = mira) =>
  enterCode(product.deps, stranger(browser), {
    token,
    address,
    code,
    kept: false,
    publicKey: await newPublicKey(),
  });
const ask = (browser = 'browser-1', address = mira, network = '203.0.113.24') =>
  requestCode(product.deps, stranger(browser, network), { token, address });
const wrong = (code: string): string => String((Number(code) + 1) % 1_000_000).padStart(6, '0');

describe('a code', () => {
  test('works once, in the browser that asked for it, for ten minutes', async () => {
    await ask();
    const code = await newestCode(product, mira);
    expect(code).toMatch(/^\d{6}$/);
    await expect(enter(code, 'browser-2')).rejects.toMatchObject({ code: 'INVALID' });
    await expect(enter(code)).resolves.toHaveProperty('deviceToken');
    await expect(enter(code)).rejects.toMatchObject({ code: 'INVALID' });
    await ask();
    const next = await newestCode(product, mira);
    product.clock.set(product.clock.now() + 10 * MINUTE);
    await expect(enter(next)).rejects.toMatchObject({ code: 'INVALID' });
  });

  test('is dead after five guesses, also when they come at once, and each is on the ledger', async () => {
    await ask();
    const code = await newestCode(product, mira);
    const guesses = await Promise.allSettled(Array.from({ length: 8 }, () => enter(wrong(code))));
    expect(guesses.every((guess) => guess.status === 'rejected')).toBe(true);
    await expect(enter(code)).rejects.toMatchObject({ problem: 'code-wrong', fields: { left: 0 } });
    const refused = await listEntries(product.deps.db.read, { with: { kind: ['refused'] } }, 9);
    expect(
      refused.filter(
        ({ entry }) => entry.action === 'code.entered' && entry.reason === 'identity-not-proven',
      ),
    ).toHaveLength(9);
  });

  test('guessed away by a stranger does not lock the recipient out', async () => {
    await ask('stranger');
    for (let i = 0; i < 6; i++)
      await expect(enter('000000', 'stranger')).rejects.toMatchObject({ code: 'INVALID' });
    await ask('own');
    await expect(enter(await newestCode(product, mira), 'own')).resolves.toHaveProperty(
      'deviceToken',
    );
  });

  test('is asked for from one network five times in a quarter of an hour; its owner can from theirs', async () => {
    const attacker = '198.51.100.66';
    for (let i = 0; i < 5; i++) await ask(`browser-${String(i)}`, mira, attacker);
    await expect(ask('another', mira, attacker)).rejects.toMatchObject({ code: 'TOO_MANY' });
    await expect(ask('own')).resolves.toEqual({ minutes: 10 });
    await expect(enter(await newestCode(product, mira), 'own')).resolves.toHaveProperty(
      'deviceToken',
    );
  });

  test('answers alike for listed addresses and others, however many were tried before', async () => {
    const attacker = '198.51.100.67';
    const others = Array.from({ length: 8 }, (_, i) => `nobody${String(i)}@outsider.example`);
    for (const address of others)
      await expect(ask('browser-1', address, attacker)).resolves.toEqual({ minutes: 10 });
    const answers = await Promise.all(
      [mira, 'nobody9@outsider.example'].map((address) =>
        ask('browser-1', address, attacker).catch((error: unknown) => error),
      ),
    );
    expect(answers[0]).toMatchObject({ code: 'TOO_MANY' });
    expect(String(answers[0])).toBe(String(answers[1]));
    await expect(ask('browser-1', mira)).resolves.toEqual({ minutes: 10 });
  });

  test('ten thousand guesses and a thousand addresses from one network wear nobody out', async () => {
    const attacker = '198.51.100.68';
    const before = await product.deps.db.read.$count(challenges);
    const asked = await Promise.allSettled(
      Array.from({ length: 1_000 }, (_, i) =>
        ask('flood', `flood${String(i)}@outsider.example`, attacker),
      ),
    );
    const sent = asked.filter(({ status }) => status === 'fulfilled').length;
    expect(sent).toBeLessThan(20);
    expect(await product.deps.db.read.$count(challenges)).toBe(before + sent);
    await ask('guesser', mira, '203.0.113.91');
    const publicKey = await newPublicKey();
    const actor = stranger('guesser', attacker);
    const guesses = await Promise.allSettled(
      Array.from({ length: 10_000 }, (_, i) =>
        enterCode(product.deps, actor, {
          token,
          address: mira,
          code: String(i).padStart(6, '0'),
          kept: false,
          publicKey,
        }),
      ),
    );
    expect(guesses.some(({ status }) => status === 'fulfilled')).toBe(false);
    await ask('own', mira, '203.0.113.92');
    await expect(enter(await newestCode(product, mira), 'own')).resolves.toHaveProperty(
      'deviceToken',
    );
  });

  test('of one IPv6 subscriber all addresses count as one', async () => {
    for (let i = 0; i < 5; i++) await ask('b', mira, `2001:db8:77:1::${String(i)}`);
    await expect(ask('b', mira, '2001:db8:77:1:ffff::1')).rejects.toMatchObject({
      code: 'TOO_MANY',
    });
    await expect(ask('b', mira, '2001:db8:77:2::1')).resolves.toEqual({ minutes: 10 });
  });

  test('stands nowhere in the database in the clear, once it was delivered', async () => {
    await ask();
    const code = await newestCode(product, mira);
    const rows = await product.deps.db.read.select().from(outbox);
    expect(
      rows.filter((row) => row.toAddress === mira && row.body.includes(code.slice(0, 3))),
    ).toHaveLength(0);
    const entries = await listEntries(product.deps.db.read, {}, 200);
    expect(JSON.stringify(entries)).not.toContain(`"${code}"`);
  });

  test('says when and from where it was asked for', async () => {
    await ask('browser-1', mira, '198.51.100.7');
    await newestCode(product, mira);
    const { messages } = await readMailroom(product.deps, { address: mira });
    const parsed = await simpleParser(
      (
        await readMessage(product.deps, {
          id: messages.find(({ subject }) => subject.endsWith('is your code'))?.id ?? '',
        })
      ).raw,
    );
    expect(parsed.text).toContain('from 198.51.100.7, near Kelder');
    expect(parsed.text).toContain('(Europe/Oslo)');
  });
});

describe('the outbox', () => {
  test('without a mail server nothing is sent, and it says what to set', async () => {
    const document = await protect(product, await drawing(1));
    const mute: Product = { ...product, deps: { ...product.deps, mailer: null } };
    await expect(dispatch(mute, [document], [mira])).rejects.toMatchObject({
      problem: 'mail-not-set-up-for-codes',
    });
  });
});

describe('before sending', () => {
  test.each([['an end that lies behind', { until: 1 }, 'INVALID']])(
    '%s is refused',
    async (_name, terms, code) => {
      const document = await protect(product, await drawing(1));
      await expect(dispatch(product, [document], [mira], terms)).rejects.toMatchObject({ code });
    },
  );
});

describe('staff', () => {
  const headers = new Headers({ 'x-embargo-network': '192.0.2.10', 'user-agent': 'test' });
  const from = { network: '192.0.2.10', agent: 'test' };

  test('sign in with address and password, and both ways are on the ledger', async () => {
    await expect(
      signIn(product.deps, product.container.identity, from, headers, {
        email: 'ida@tern-quill.example',
        password: 'not the password',
      }),
    ).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    const cookies = await signIn(product.deps, product.container.identity, from, headers, {
      email: 'Ida@Tern-Quill.example',
      password: 'a long enough password',
    });
    expect(cookies.join()).toMatch(/embargo-staff=.*HttpOnly/i);
    const cookie = cookies[0]?.split(';')[0] ?? '';
    await expect(product.container.identity.whoIs(new Headers({ cookie }))).resolves.toMatchObject({
      staff: product.ida.id,
    });
    await expect(
      product.container.identity.whoIs(new Headers({ cookie: `${cookie}x` })),
    ).resolves.toBeNull();
    const [granted, refused] = await listEntries(product.deps.db.read, {}, 2);
    expect([granted?.entry.outcome, refused?.entry.outcome]).toEqual(['done', 'refused']);
    expect(granted?.personal['network']).toBe('192.0.2.10');
  });

  test('are limited in their tries', async () => {
    const attempt = () =>
      signIn(
        product.deps,
        product.container.identity,
        { network: '192.0.2.99', agent: '' },
        headers,
        { email: 'guess@tern-quill.example', password: 'x' },
      );
    for (let i = 0; i < 10; i++)
      await expect(attempt()).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    await expect(attempt()).rejects.toMatchObject({ code: 'TOO_MANY' });
  });

  test('set up once, with the token from the console', async () => {
    const input = {
      token: 'guess',
      organisation: 'Other',
      zone: 'UTC',
      name: 'Eve',
      email: 'eve@other.example',
      password: 'another long password',
      recoveryKey: null,
    };
    await expect(
      setUpOrganisation(product.deps, product.container.identity, input),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });
});

test('a device ends: a visit after hours, a kept one after sixty days', async () => {
  await ask();
  const visit = await enter(await newestCode(product, mira));
  expect(visit.maxAge).toBeNull();
  await ask();
  const kept = await enterCode(product.deps, stranger(), {
    token,
    address: mira,
    code: await newestCode(product, mira),
    kept: true,
    publicKey: await newPublicKey(),
  });
  expect(kept.maxAge).toBe((60 * DAY) / 1000);
  const { findDeviceByToken } = await import('@/server/repositories/reading/reader-repository');
  const find = (deviceToken: string) =>
    findDeviceByToken(
      product.deps.db.read,
      product.deps.vault.mac('device', deviceToken),
      product.clock.now(),
    );
  product.clock.set(product.clock.now() + 9 * HOUR);
  await expect(find(visit.deviceToken)).resolves.toBeNull();
  await expect(find(kept.deviceToken)).resolves.not.toBeNull();
});

describe('who tried, by whose link', () => {
  const bodies = async () =>
    (await product.deps.db.read.select().from(ledgerEntries)).map(
      ({ body }) => JSON.parse(body) as Entry,
    );

  test('a stranger with a forwarded link is in the ledger with document, dispatch and whose link it was', async () => {
    const paper = await protect(product, await drawing(1), 'Forwarded');
    const sent = await dispatch(product, [paper], ['mira.forwards@yard.example']);
    const [grant] = sent.grants;
    const token = sent.tokenOf('mira.forwards@yard.example');
    const reader = await prove(product, token, 'somebody.else@elsewhere.example');
    expect(await sharedWith(product.deps, reader, { token })).toMatchObject({ documents: [] });
    const tries = (await bodies()).filter(
      ({ dispatch: of, details }) => of === sent.id && details['linkOf'] === grant?.recipientId,
    );
    expect(tries.map(({ action }) => action)).toEqual([
      'code.requested',
      'code.entered',
      'document.opened',
    ]);
    expect(tries.at(-1)).toMatchObject({
      outcome: 'refused',
      reason: 'not-addressed',
      document: paper,
    });
  });

  test('documents that are shown as ended in a list of several are each a refusal, with the reason', async () => {
    const [ended, open] = [
      await protect(product, await drawing(1), 'Ended'),
      await protect(product, await drawing(1), 'Open'),
    ];
    const sent = await dispatch(product, [ended, open], ['per.lists@yard.example']);
    const token = sent.tokenOf('per.lists@yard.example');
    const reader = await prove(product, token, 'per.lists@yard.example');
    await revokeGrants(product.deps, product.ida, {
      grants: sent.grants.filter(({ documentId }) => documentId === ended).map(({ id }) => id),
    });
    await sharedWith(product.deps, reader, { token });
    const refused = (await bodies()).filter(
      ({ dispatch: of, action }) => of === sent.id && action === 'document.opened',
    );
    expect(refused).toMatchObject([
      { outcome: 'refused', reason: 'revoked', document: ended, details: {} },
    ]);
  });

  test('and nobody fills the ledger by asking again and again', async () => {
    const paper = await protect(product, await drawing(1), 'Asked for often');
    const sent = await dispatch(product, [paper], ['only@yard.example']);
    const reader = await prove(
      product,
      sent.tokenOf('only@yard.example'),
      'often@elsewhere.example',
    );
    const asked = await Promise.allSettled(
      Array.from({ length: 130 }, () =>
        sharedWith(product.deps, reader, { token: sent.tokenOf('only@yard.example') }),
      ),
    );
    expect(asked.filter(({ status }) => status === 'rejected')).toHaveLength(10);
    expect(
      (await bodies()).filter(
        ({ dispatch: of, action }) => of === sent.id && action === 'document.opened',
      ),
    ).toHaveLength(120);
  });
});

test('what somebody tries by the link of another stands in that one’s ledger, in rows and counts', async () => {
  const { deps, ida } = product;
  const document = await protect(product, await drawing(1), 'Forwarded');
  const sent = await dispatch(product, [document], ['whose@yard.example']);
  const token = sent.tokenOf('whose@yard.example');
  const stranger = await prove(product, token, 'stranger@else.example');
  expect(await openDocument(deps, stranger, { token, document })).toMatchObject({
    outcome: 'refused',
    reason: 'not-addressed',
  });
  const recipient = sent.grants[0]?.recipientId ?? 'rcp_';
  const page = await listLedger(deps, ida, { recipient: [recipient], kind: ['refused'] });
  expect(page.rows).toMatchObject([{ reason: 'not-addressed', dispatch: sent.id, document }]);
  expect(page.total).toBe(1);
  expect((await viewPerson(deps, ida, { id: recipient })).byTheirLinks).toBe(1);
});
