// Mail over a real SMTP connection, when the server takes it, puts it off, or refuses it.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { tmpdir } from 'node:os';
import { mkdtempSync } from 'node:fs';
import path from 'node:path';
import { MINUTE } from '@/core/base/time';
import { outbox } from '@/server/db/schema';
import { listEntries } from '@/server/repositories/ledger-reader';
import { deliverMail } from '@/server/services/deliver-mail';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';
import { startSink, type Sink } from '../support/smtp-sink';

let sink: Sink;
let product: Product;
let now = START;

beforeAll(async () => {
  sink = await startSink();
  product = await startProduct(mkdtempSync(path.join(tmpdir(), 'embargo-mail-')), { MAIL_URL: sink.url, MAIL_FROM: 'Tern & Quill <documents@tern-quill.example>' });
});
afterAll(async () => {
  await product.close();
  await sink.close();
});
beforeEach(() => { sink.answer(null); });

const later = (span: number): void => { product.clock.set((now += span)); };
const send = async (address: string) => dispatch(product, [await protect(product, await drawing(1))], [address]);
const waiting = async (address: string) => (await product.deps.db.read.select().from(outbox)).find((row) => row.toAddress === address);
const newest = async () => (await listEntries(product.deps.db.read, {}, 1)).at(0);

describe('a dispatch', () => {
  test('reaches the recipient with its own link, once, and the outbox forgets what it said', async () => {
    const { tokenOf } = await send('mira@brackwater.example');
    await deliverMail(product.deps);
    await deliverMail(product.deps);
    const got = sink.received.filter((mail) => mail.text?.includes(tokenOf('mira@brackwater.example')));
    expect(got).toHaveLength(1);
    expect(await waiting('mira@brackwater.example')).toMatchObject({ state: 'delivered', body: '' });
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
    expect((await newest())?.entry).toMatchObject({ action: 'mail.failed', outcome: 'failed', reason: 'MAIL_REFUSED' });
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
