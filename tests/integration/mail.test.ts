// Mail over a real SMTP connection, when the server takes it, puts it off, or refuses it.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { tmpdir } from 'node:os';
import { mkdtempSync } from 'node:fs';
import path from 'node:path';
import { MINUTE } from '@/core/base/time';
import { newId } from '@/core/base/ids';
import { links } from '@/server/db/schema/access';
import { outbox } from '@/server/db/schema/mailing';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { deliverMail, settleInterrupted } from '@/server/services/mailing/deliver-mail';
import { requestCode } from '@/server/services/reading/prove-address';
import { viewToday } from '@/server/services/overview/view-today';
import {
  START,
  dispatch,
  drawing,
  protect,
  startProduct,
  stranger,
  type Product,
} from '../support/product';
import { startSink, type Sink } from '../support/smtp-sink';

let sink: Sink;
let product: Product;
let now = START;
let names = 0;

beforeAll(async () => {
  sink = await startSink();
  product = await startProduct(mkdtempSync(path.join(tmpdir(), 'embargo-mail-')), {
    MAIL_URL: sink.url,
    MAIL_FROM: 'Tern & Quill <documents@tern-quill.example>',
  });
});
afterAll(async () => {
  await product.close();
  await sink.close();
});
beforeEach(() => {
  sink.answer(null);
});

const later = (span: number): void => {
  product.clock.set((now += span));
};
const send = async (address: string) =>
  dispatch(product, [await protect(product, await drawing(1))], [address]);
const waiting = async (address: string) =>
  (await product.deps.db.read.select().from(outbox)).find((row) => row.toAddress === address);
const newest = async () => (await listEntries(product.deps.db.read, {}, 1)).at(0);

describe('a dispatch', () => {
  test('reaches the recipient with its own link, once, and the outbox forgets what it said', async () => {
    const { tokenOf } = await send('mira@brackwater.example');
    await deliverMail(product.deps);
    await deliverMail(product.deps);
    const got = sink.received.filter((mail) =>
      mail.text?.includes(tokenOf('mira@brackwater.example')),
    );
    expect(got).toHaveLength(1);
    // An answer by mail reaches who sent it, and the organisation's name stands above.
    expect(got[0]?.replyTo?.value).toMatchObject([{ address: product.ida.email }]);
    expect(got[0]?.html).toContain('border-top:4px solid #1f6f78');
    expect(await waiting('mira@brackwater.example')).toMatchObject({
      state: 'delivered',
      body: '',
    });
    expect((await newest())?.entry).toMatchObject({ action: 'mail.delivered' });
  });

  test('put off by the mail server is tried again later under the same id, and not before', async () => {
    sink.answer(451);
    await send('lena@ferrow.example');
    await deliverMail(product.deps);
    expect(await waiting('lena@ferrow.example')).toMatchObject({ state: 'waiting', attempts: 1 });
    sink.answer(null);
    expect(await deliverMail(product.deps)).toBe(0);
    later(3 * MINUTE);
    await deliverMail(product.deps);
    const row = await waiting('lena@ferrow.example');
    expect(row).toMatchObject({ state: 'delivered', attempts: 2 });
    expect(sink.received.at(-1)?.messageId).toBe(`<${row?.id ?? ''}@tern-quill.example>`);
  });

  test('refused for good is given up at once and stands on the ledger', async () => {
    sink.answer(550);
    await send('gone@ferrow.example');
    await deliverMail(product.deps);
    expect(await waiting('gone@ferrow.example')).toMatchObject({ state: 'failed' });
    expect((await newest())?.entry).toMatchObject({
      action: 'mail.failed',
      outcome: 'failed',
      reason: 'MAIL_REFUSED',
    });
    later(60 * MINUTE);
    expect(await deliverMail(product.deps)).toBe(0);
  });

  test('that never gets through is given up after eight tries', async () => {
    sink.answer(451);
    await send('slow@ferrow.example');
    let tries = 0;
    while ((await waiting('slow@ferrow.example'))?.state === 'waiting' && tries < 20) {
      tries += await deliverMail(product.deps);
      later(600 * MINUTE);
    }
    expect(tries).toBe(8);
  });
});

describe('the queue', () => {
  const address = (): string => `queue.${String(names++)}@ferrow.example`;
  const message = (to: string, over: Partial<typeof outbox.$inferInsert> = {}) => ({
    id: newId('message', product.deps.random),
    toAddress: to,
    subject: 'Sent to you',
    body: 'text',
    state: 'waiting' as const,
    nextAttemptAt: 0,
    createdAt: 0,
    ...over,
  });
  const queue = (...rows: (typeof outbox.$inferInsert)[]) =>
    product.deps.db.write((tx) => queueMail(tx, rows));

  test('hands over a code at once, however many messages wait and however slow their server is', async () => {
    const { tokenOf } = await send(`door.${address()}`);
    await deliverMail(product.deps);
    sink.slow(100);
    await queue(...Array.from({ length: 120 }, () => message(address())));
    const all = deliverMail(product.deps);
    await new Promise((resolve) => {
      setTimeout(resolve, 300);
    });
    const began = Date.now();
    const own = address();
    await requestCode(product.deps, stranger(), {
      token: [...(await product.deps.db.read.select().from(links))].at(-1)?.token ?? tokenOf(own),
      address: own,
    });
    await deliverMail(product.deps, 'urgent');
    expect(Date.now() - began).toBeLessThan(2_000);
    expect(await waiting(own)).toMatchObject({ state: 'delivered' });
    expect(
      (await product.deps.db.read.select().from(outbox)).filter(({ state }) => state === 'waiting')
        .length,
    ).toBeGreaterThan(20);
    sink.slow(0);
    await all;
  });

  test('what cannot be made stands aside with its reason, and everything behind it goes out', async () => {
    const [broken, fine] = [address(), address()];
    await queue(
      message(broken, { attached: 5 as never, dispatchId: 'dsp_gone', recipientId: 'rcp_gone' }),
      message(fine),
    );
    await deliverMail(product.deps);
    expect(await waiting(fine)).toMatchObject({ state: 'delivered' });
    expect(await waiting(broken)).toMatchObject({
      state: 'waiting',
      attempts: 1,
      lastError: 'This message could not be made.',
    });
    expect(
      (await viewToday(product.deps, product.ida)).undelivered.map((row) => row.address),
    ).toContain(broken);
  });

  test('what was being handed over when it was cut off is not sent again by itself, but for codes', async () => {
    const [letter, code] = [address(), address()];
    await queue(
      message(letter, { state: 'sending', attempts: 1 }),
      message(code, { state: 'sending', attempts: 1, urgent: true }),
    );
    expect(await settleInterrupted(product.deps, true)).toBe(2);
    await deliverMail(product.deps);
    expect(await waiting(letter)).toMatchObject({ state: 'unsure' });
    expect(await waiting(code)).toMatchObject({ state: 'delivered' });
    expect(sink.received.filter((mail) => JSON.stringify(mail.to).includes(letter))).toHaveLength(
      0,
    );
    expect(
      (await viewToday(product.deps, product.ida)).undelivered.find(
        (row) => row.address === letter,
      ),
    ).toMatchObject({ over: true, problem: expect.stringContaining('may have arrived') as string });
  });

  test('nothing is handed over whose handing over cannot be written down first', async () => {
    const to = address();
    await queue(message(to));
    const deps = {
      ...product.deps,
      db: { ...product.deps.db, writeAside: () => Promise.reject(new Error('SQLITE_FULL')) },
    };
    await expect(deliverMail(deps)).rejects.toThrow('SQLITE_FULL');
    expect(sink.received.filter((mail) => JSON.stringify(mail.to).includes(to))).toHaveLength(0);
    await deliverMail(product.deps);
    expect(sink.received.filter((mail) => JSON.stringify(mail.to).includes(to))).toHaveLength(1);
  });

  test('two rounds at once hand each message over once', async () => {
    const all = Array.from({ length: 30 }, address);
    await queue(...all.map((to) => message(to)));
    await Promise.all([
      deliverMail(product.deps),
      deliverMail(product.deps),
      deliverMail(product.deps, 'urgent'),
    ]);
    for (const to of all)
      expect(sink.received.filter((mail) => JSON.stringify(mail.to).includes(to))).toHaveLength(1);
  });
});
