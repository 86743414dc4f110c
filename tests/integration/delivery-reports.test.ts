// What comes back by mail: delivery reports are told in words, and believed no further than that.
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { createMaildirInbox } from '@/server/mail/maildir-inbox';
import { toMime } from '@/server/mail/mime';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { outbox } from '@/server/db/schema/mailing';
import { closeMailbox } from '@/server/services/demo/close-mailbox';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { stopMail } from '@/server/services/dispatching/mail-progress';
import { mailAgain } from '@/server/services/dispatching/mail-links';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { takeReport, takeReports } from '@/server/services/mailing/take-reports';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
let document: DocumentId;
let round = 0;
let address: string;
let sent: Awaited<ReturnType<typeof dispatch>>;

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  product.clock.set(START + ++round * 60_000);
  address = `ivo${String(round)}@yard.example`;
  sent = await dispatch(product, [document], [address]);
});

const messageOf = async () => {
  const rows = await product.deps.db.read.select().from(outbox);
  const found = rows.findLast(({ toAddress }) => toAddress === address);
  if (found === undefined) throw new Error('nothing was mailed');
  return found;
};
const handed = async () =>
  (await viewDispatch(product.deps, product.ida, { id: sent.id })).mail.map(
    ({ state, problem }) => ({ state, problem }),
  );
const close = (closed: boolean) => closeMailbox(product.deps, product.ida, { address, closed });

const returned = () =>
  product.deps.db.read
    .select()
    .from(ledgerEntries)
    .where(eq(ledgerEntries.action, 'mail.returned'));

type Said = { readonly action?: string; readonly envelope?: string; readonly headers?: string };
const report = ({ action = 'failed', envelope = '', headers = '' }: Said): Uint8Array =>
  new TextEncoder().encode(
    [
      'From: postmaster@mail.yard.example',
      'MIME-Version: 1.0',
      'Content-Type: multipart/report; report-type=delivery-status; boundary=b',
      '',
      '--b',
      'Content-Type: message/delivery-status',
      '',
      'Reporting-MTA: dns; mail.yard.example',
      envelope,
      '',
      `Final-Recipient: rfc822; ${address}`,
      `Action: ${action}`,
      'Status: 5.2.2',
      '',
      '--b',
      'Content-Type: text/rfc822-headers',
      '',
      headers,
      '',
      '--b--',
      '',
    ].join('\r\n'),
  );

describe('a message that came back', () => {
  test('is told beside the person in words, on the ledger, and again after it was mailed anew', async () => {
    await close(true);
    await deliverMail(product.deps);
    expect(await handed()).toMatchObject([{ state: 'delivered' }]);
    await takeReports(product.deps);
    expect(await handed()).toEqual([
      {
        state: 'returned',
        problem: 'There is no such mailbox. Their server: “550 5.1.1 No such mailbox”',
      },
    ]);
    const [entry] = await returned();
    expect(entry).toMatchObject({ outcome: 'failed', dispatchId: sent.id });
    await takeReports(product.deps);
    expect(await returned()).toHaveLength(1);

    await close(false);
    const { grants } = await viewDispatch(product.deps, product.ida, { id: sent.id });
    const recipients = grants.map(({ recipientId }) => recipientId);
    await mailAgain(product.deps, product.ida, { id: sent.id, recipients });
    await deliverMail(product.deps);
    expect(await handed()).toEqual([{ state: 'delivered', problem: '' }]);
  });

  test('is known by the message it returns where its envelope id was lost', async () => {
    await deliverMail(product.deps);
    const { id } = await messageOf();
    await takeReport(product.deps, report({ headers: `Message-ID: <${id}@tern-quill.example>` }));
    expect(await handed()).toEqual([{ state: 'returned', problem: 'The mailbox is full.' }]);
  });

  test('is looked at again where it came before it was written down that it went out', async () => {
    const { id } = await messageOf();
    const envelope = `Original-Envelope-Id: ${id}`;
    expect(await takeReport(product.deps, report({ envelope }))).toBe('done');
    expect(await handed()).toMatchObject([{ state: 'waiting' }]);
    await product.deps.db.write(async (tx) => {
      await tx.update(outbox).set({ state: 'sending' });
    });
    expect(await takeReport(product.deps, report({ envelope }))).toBe('later');
    await product.deps.db.write(async (tx) => {
      await tx.update(outbox).set({ state: 'delivered' });
    });
  });

  test('that is only late stays delivered, and says that it is late', async () => {
    await deliverMail(product.deps);
    const { id } = await messageOf();
    await takeReport(
      product.deps,
      report({ action: 'delayed', envelope: `Original-Envelope-Id: ${id}` }),
    );
    const [mail] = await handed();
    expect(mail?.state).toBe('delivered');
    expect(mail?.problem).toContain('It is late');
  });

  test('changes nothing where it is about nothing of ours, says it was delivered, or is no report', async () => {
    await deliverMail(product.deps);
    const { id } = await messageOf();
    const ours = `Original-Envelope-Id: ${id}`;
    const strange = [
      report({ envelope: 'Original-Envelope-Id: msg_00000000000000000000' }),
      report({ action: 'delivered', envelope: ours }),
      report({}),
      new TextEncoder().encode(`Subject: ${ours}\r\n\r\n${ours}`),
      new Uint8Array(0),
      new Uint8Array(5000).fill(0xff),
    ];
    for (const each of strange) expect(await takeReport(product.deps, each)).toBe('done');
    expect(await handed()).toEqual([{ state: 'delivered', problem: '' }]);
  });
});

test('what waits can be stopped: nobody is mailed, access stays, and mailing again reaches them', async () => {
  expect(await stopMail(product.deps, product.ida, { id: sent.id })).toEqual({ stopped: 1 });
  await deliverMail(product.deps);
  expect(await handed()).toMatchObject([{ state: 'stopped' }]);
  const { grants } = await viewDispatch(product.deps, product.ida, { id: sent.id });
  expect(grants.map(({ revokedAt }) => revokedAt)).toEqual([null]);
  const recipients = grants.map(({ recipientId }) => recipientId);
  await mailAgain(product.deps, product.ida, { id: sent.id, recipients });
  await deliverMail(product.deps);
  expect(await handed()).toMatchObject([{ state: 'delivered' }]);
  expect(await stopMail(product.deps, product.ida, { id: sent.id })).toEqual({ stopped: 0 });
});

test('a mail server is asked for reports that name the message by its id', async () => {
  const { createTransport } = await import('nodemailer');
  const { toEnvelope } = await import('@/server/mail/mime');
  const mail = { id: 'msg_412', to: address, subject: 'x', text: 'y' };
  const info = await createTransport({ jsonTransport: true }).sendMail(
    toEnvelope(mail, 'embargo@tern-quill.example', new Date(START)),
  );
  expect(info.messageId).toBe('<msg_412@tern-quill.example>');
  expect(toEnvelope(mail, 'a@b.example', new Date(START)).dsn).toMatchObject({ id: 'msg_412' });
  expect(await toMime(mail, 'a@b.example', new Date(START))).toContain('Message-ID: <msg_412@');
});

test('a Maildir hands over each new message once, and keeps it as seen', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'maildir-'));
  const inbox = createMaildirInbox(folder);
  const seen: string[] = [];
  const take = (answer: 'done' | 'later') =>
    inbox.take((beginning) => {
      seen.push(new TextDecoder().decode(beginning));
      return Promise.resolve(answer);
    });
  await take('done');
  for (const name of ['new', 'tmp']) mkdirSync(path.join(folder, name));
  writeFileSync(path.join(folder, 'new', '2.host'), 'second');
  writeFileSync(path.join(folder, 'new', '1.host'), 'first');
  await take('later');
  await take('done');
  await take('done');
  expect(seen).toEqual(['first', 'second', 'first', 'second']);
  expect(readdirSync(path.join(folder, 'cur')).sort()).toEqual(['1.host:2,S', '2.host:2,S']);
  rmSync(folder, { recursive: true });
});
