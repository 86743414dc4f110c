// A recipient asks for more; anyone who answers for it gives, gives in part, or declines; both see the state.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { DocumentId, RequestId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { answerRequests, listRequests } from '@/server/services/requests/answer-requests';
import { MOST_TURNS } from '@/core/policy/requests';
import { askBack, replyToQuestion } from '@/server/services/requests/ask-back';
import { askForMore, ownRequests } from '@/server/services/requests/ask-for-more';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { ReaderActor } from '@/server/services/base/deps';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { openDocument } from '@/server/services/reading/open-document';
import { readMailroom } from '@/server/services/demo/read-mailroom';
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
let sent: Awaited<ReturnType<typeof dispatch>>;
let reader: ReaderActor;
let token: string;
let round = 0;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  product.clock.set(START);
  const address = `surveyor${String(++round)}@class.example`;
  document = await protect(product, await drawing(1));
  sent = await dispatch(product, [document], [address], { until: START + DAY });
  token = sent.tokenOf(address);
  reader = await prove(product, token, address);
});

const ask = (change: Partial<Parameters<typeof askForMore>[2]> = {}) =>
  askForMore(product.deps, reader, {
    token,
    document,
    right: null,
    until: START + 5 * DAY,
    reason: 'The hull is not dry yet',
    ...change,
  });
const waiting = async (): Promise<RequestId[]> =>
  (await listRequests(product.deps, product.ida, sent.id)).map(({ id }) => id);
const answer = async (change: Partial<Parameters<typeof answerRequests>[2]>) =>
  answerRequests(product.deps, product.ida, {
    requests: await waiting(),
    right: null,
    until: null,
    prints: null,
    words: '',
    ...change,
  });
const open = () => openDocument(product.deps, reader, { token, document });

describe('more time', () => {
  test('is asked for after the end too, told to the sender, given, told, and opens again', async () => {
    product.clock.set(START + 2 * DAY);
    expect(await open()).toMatchObject({ outcome: 'refused', reason: 'expired', requests: [] });
    await ask();
    expect(await open()).toMatchObject({
      outcome: 'refused',
      requests: [{ state: 'waiting', until: START + 5 * DAY }],
    });
    expect(await listRequests(product.deps, product.ida, sent.id)).toMatchObject([
      {
        address: reader.address,
        reason: 'The hull is not dry yet',
        holds: { until: START + DAY },
        mayAnswer: true,
      },
    ]);
    await answer({ until: START + 5 * DAY, words: 'Take your time' });
    expect(await open()).toMatchObject({
      outcome: 'granted',
      until: START + 5 * DAY,
      requests: [{ state: 'given', answer: 'Take your time' }],
    });
    await deliverMail(product.deps);
    expect(
      (await readMailroom(product.deps, { address: product.ida.email })).messages[0]?.subject,
    ).toContain('asks about');
    expect(
      (await readMailroom(product.deps, { address: reader.address })).messages[0]?.subject,
    ).toContain('Your request');
    expect(
      (
        await verifyLedger(product.deps.db.read, {
          publicKey: product.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
  });

  test('is declined with a sentence, and nothing changes', async () => {
    await ask();
    await answer({ words: 'The tender is closed' });
    expect(await open()).toMatchObject({
      outcome: 'granted',
      until: START + DAY,
      requests: [{ state: 'declined', answer: 'The tender is closed' }],
    });
    expect(await waiting()).toEqual([]);
  });
});

describe('a right', () => {
  test('given for good joins the grant', async () => {
    await ask({ right: 'copy', until: null });
    await answer({ right: 'copy' });
    expect(await open()).toMatchObject({ rights: { copy: { granted: true } }, until: START + DAY });
  });

  test('given for a while ends by itself, and reading goes on', async () => {
    await ask({ right: 'print', until: null });
    await answer({ right: 'print', prints: 1, until: START + HOUR });
    expect(await open()).toMatchObject({
      rights: { print: { granted: true, printsLeft: 1 } },
      requests: [{ state: 'given-in-part' }],
    });
    product.clock.set(START + 2 * HOUR);
    expect(await open()).toMatchObject({
      outcome: 'granted',
      rights: { print: { granted: false } },
      until: START + DAY,
    });
  });
});

test('keeping, given for a while, brings along what it rests on', async () => {
  await ask({ right: 'keep', until: null });
  await answer({ right: 'keep', until: START + HOUR });
  expect(await open()).toMatchObject({
    rights: { keep: { granted: true }, copy: { granted: true }, print: { granted: true } },
  });
  product.clock.set(START + 2 * HOUR);
  expect(await open()).toMatchObject({ rights: { keep: { granted: false } } });
});

test('asking again, for what one has, or for nothing is answered clearly', async () => {
  await ask();
  await expect(ask()).rejects.toMatchObject({ code: 'CONFLICT' });
  await expect(ask({ right: 'read', until: null })).rejects.toMatchObject({ code: 'CONFLICT' });
  await expect(ask({ right: 'copy', until: START - 1 })).rejects.toMatchObject({ code: 'INVALID' });
});

test('somebody refused for the place, the hour or the count asks as anybody else, and it is said why', async () => {
  const [row] = (await viewDispatch(product.deps, product.ida, { id: sent.id })).grants;
  await changeGrants(product.deps, product.ida, {
    changes: [
      { grant: row?.id ?? 'grt_', revision: row?.revision ?? 0, conditions: { countries: ['IS'] } },
    ],
  });
  expect(await open()).toMatchObject({ outcome: 'refused', reason: 'place-not-allowed' });
  await ask({ right: null, until: null, reason: 'I am in the north this week' });
  await ask({ until: START + 3 * DAY });
  expect((await listRequests(product.deps, product.ida, sent.id)).map(({ met }) => met)).toEqual([
    'place-not-allowed',
    'place-not-allowed',
  ]);
});

test('anyone who was shut out, or never addressed, has nobody here to ask', async () => {
  await revokeGrants(product.deps, product.ida, { grants: sent.grants.map(({ id }) => id) });
  await expect(ask()).rejects.toMatchObject({
    problem: 'ask-in-vain',
    fields: { reason: 'revoked' },
  });
  await revokeDocument(product.deps, product.ida, { id: document });
  await expect(ask()).rejects.toMatchObject({ fields: { reason: 'document-revoked' } });
  await ask({ right: null, until: null, reason: 'What happened?' });
  expect(await listRequests(product.deps, product.ida, sent.id)).toMatchObject([
    { met: 'document-revoked', reason: 'What happened?' },
  ]);
  const other = await prove(product, token, `nobody${String(round)}@else.example`);
  await expect(
    askForMore(product.deps, other, {
      token,
      document,
      right: null,
      until: START + 5 * DAY,
      reason: 'Please',
    }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
});

test('a message is told, answered with a sentence and changes nothing, also for who was shut out', async () => {
  await revokeGrants(product.deps, product.ida, { grants: sent.grants.map(({ id }) => id) });
  await ask({ until: null, reason: 'Was this a mistake?' });
  expect(await listRequests(product.deps, product.ida, sent.id)).toMatchObject([
    { right: null, until: null, reason: 'Was this a mistake?' },
  ]);
  expect(await viewDispatch(product.deps, product.ida, { id: sent.id })).toMatchObject({
    requests: 1,
  });
  await expect(answer({})).rejects.toMatchObject({ code: 'INVALID' });
  await answer({ words: 'It was not.' });
  expect(await open()).toMatchObject({
    outcome: 'refused',
    reason: 'revoked',
    requests: [{ state: 'answered', answer: 'It was not.' }],
  });
});

test('two who answer at once: the second is told, and a foreign sender cannot answer at all', async () => {
  await ask();
  const requests = await waiting();
  const sender = await joinStaff(product, 'sender', `sender${String(round)}`);
  expect(await listRequests(product.deps, sender, sent.id)).toMatchObject([{ mayAnswer: false }]);
  await expect(
    answerRequests(product.deps, sender, {
      requests,
      right: null,
      until: null,
      prints: null,
      words: 'no',
    }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  await answer({ until: START + 3 * DAY });
  await expect(
    answerRequests(product.deps, product.ida, {
      requests,
      right: null,
      until: null,
      prints: null,
      words: 'no',
    }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  expect(await open()).toMatchObject({
    until: START + 3 * DAY,
    requests: [{ state: 'given-in-part' }],
  });
});

describe('a question back', () => {
  const back = async (words = 'Which hull do you mean?') =>
    askBack(product.deps, product.ida, { requests: await waiting(), words });
  const reply = async (words = 'Hull 412', actor = reader) => {
    const [request] = await ownRequests(product.deps, actor, document);
    if (request === undefined) throw new Error('nothing was asked');
    return replyToQuestion(product.deps, actor, { document, request: request.id, words });
  };

  test('is seen and replied to where it was asked, seen by staff, mailed both ways, and answered', async () => {
    await ask();
    await back();
    const asked = { by: 'staff', text: 'Which hull do you mean?' };
    expect(await open()).toMatchObject({ requests: [{ state: 'asked-back', turns: [asked] }] });
    expect(await reply()).toMatchObject([
      { state: 'waiting', turns: [asked, { by: 'asker', text: 'Hull 412' }] },
    ]);
    expect(await listRequests(product.deps, product.ida, sent.id)).toMatchObject([
      { state: 'waiting', turns: [asked, { text: 'Hull 412' }] },
    ]);
    await answer({ until: 'as-asked' });
    expect(await open()).toMatchObject({ until: START + 5 * DAY, requests: [{ state: 'given' }] });
    await deliverMail(product.deps);
    const subjects = async (address: string) =>
      (await readMailroom(product.deps, { address })).messages.map(({ subject }) => subject);
    expect(await subjects(reader.address)).toContainEqual(expect.stringContaining('A question'));
    expect(await subjects(product.ida.email)).toContainEqual(expect.stringContaining('replied'));
  });

  test('keeps nobody from answering at once, and takes no reply after that', async () => {
    await ask();
    await back();
    await answer({ words: 'It is closed' });
    await expect(reply()).rejects.toMatchObject({ problem: 'nothing-to-reply' });
    expect(await waiting()).toEqual([]);
  });

  test('is not replied to by anybody else, by id or by link', async () => {
    await ask();
    await back();
    const [request] = await ownRequests(product.deps, reader, document);
    const other = await dispatch(product, [document], ['other@class.example'], {
      until: START + DAY,
    });
    const theirs = other.tokenOf('other@class.example');
    const stranger = await prove(product, theirs, 'other@class.example');
    if (request === undefined) throw new Error('nothing was asked');
    await expect(
      replyToQuestion(product.deps, stranger, { document, request: request.id, words: 'Mine' }),
    ).rejects.toMatchObject({ problem: 'not-sent-here' });
  });

  test('counts one reply although it is sent twenty times at once', async () => {
    await ask();
    await back();
    const replies = await Promise.allSettled(Array.from({ length: 20 }, () => reply()));
    expect(replies.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect((await ownRequests(product.deps, reader, document))[0]?.turns).toHaveLength(2);
  });

  test('does not go on without end', async () => {
    await ask();
    for (let turn = 0; turn < MOST_TURNS; turn++) await back();
    await expect(back()).rejects.toMatchObject({ problem: 'request-turns' });
  });
});

describe('several alike', () => {
  test('get each the time that they asked for, by one answer', async () => {
    const far = `far${String(round)}@class.example`;
    sent = await dispatch(product, [document], [far, `near${String(round)}@class.example`], {
      until: START + DAY,
    });
    const each = async (address: string, days: number) => {
      const link = sent.tokenOf(address);
      const actor = await prove(product, link, address);
      const until = START + days * DAY;
      const asked = { token: link, document, right: null, until, reason: 'More time' };
      await askForMore(product.deps, actor, asked);
    };
    await each(far, 30);
    await each(`near${String(round)}@class.example`, 3);
    await answer({ until: 'as-asked' });
    const { grants } = await viewDispatch(product.deps, product.ida, { id: sent.id });
    const ends = new Map(grants.map(({ address, until }) => [address, until]));
    expect(ends.get(far)).toBe(START + 30 * DAY);
    expect(ends.get(`near${String(round)}@class.example`)).toBe(START + 3 * DAY);
  });
});
