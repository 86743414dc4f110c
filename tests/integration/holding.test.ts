// Dispatches that are held back, or leave later: stopped, hastened, left once, and kept where they cannot leave.
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { createClient } from '@libsql/client';
import path from 'node:path';
import type { DocumentId } from '@/core/base/ids';
import { DAY, MINUTE } from '@/core/base/time';
import { EMPTY_SHEET, rowOf } from '@/core/compose/sheet';
import { dispatchInput } from '@/contracts/dispatch';
import { keepDraftInput } from '@/contracts/draft';
import { ledgerInput } from '@/contracts/ledger';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { putWorkSettings } from '@/server/services/base/work-settings';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import {
  hastenHeld,
  sendHeld,
  stopHeld,
  viewHeld,
} from '@/server/services/dispatching/hold-dispatch';
import { keepDraft } from '@/server/services/dispatching/keep-draft';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { startCompose } from '@/server/services/dispatching/start-compose';
import { listLedger } from '@/server/services/ledger/list-entries';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { changeStaff } from '@/server/services/staff/manage-staff';
import { START, drawing, protect, startProduct, type Product } from '../support/product';
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
  product.clock.set(START + round * DAY);
  document = await protect(product, await drawing(1));
});

const now = () => product.deps.clock.now();
const address = () => `mira${String(round)}@yard.example`;
const input = (over: object = {}) =>
  dispatchInput.parse({
    documents: [document],
    recipients: [{ address: address() }],
    terms: { rights: ['read'], from: null, until: now() + 30 * DAY, prints: null },
    subject: `Later ${String(round)}`,
    note: '',
    watermark: [],
    delivery: 'mail',
    leavesAt: now() + 10 * MINUTE,
    ...over,
  });
const hold = async (over: object = {}, actor = product.ida) => {
  const { held, id } = await sendDocuments(product.deps, actor, input(over));
  if (held === null) throw new Error('it was not held back');
  expect(id).toBeNull();
  return held;
};
const arrived = async () => {
  await deliverMail(product.deps);
  return (await readMailroom(product.deps, { address: address() })).messages.length;
};
const waiting = async () => (await viewHeld(product.deps, product.ida)).map(({ id }) => id);

test('nobody is given anything before it leaves, and then all of it, once', async () => {
  const held = await hold();
  expect(await waiting()).toEqual([held]);
  expect(await sendHeld(product.deps)).toBe(0);
  expect(await arrived()).toBe(0);
  expect(await findRecipients(product.deps.db.read, [address()])).toEqual([]);
  product.clock.set(now() + 10 * MINUTE);
  // Twenty rounds at once: it leaves once.
  await Promise.all(Array.from({ length: 20 }, () => sendHeld(product.deps)));
  expect(await arrived()).toBe(1);
  expect(await waiting()).toEqual([]);
  await expect(stopHeld(product.deps, product.ida, { id: held })).rejects.toMatchObject({
    problem: 'held-left',
  });
});

test('the organisation holds back what nobody asked to hold back', async () => {
  await putWorkSettings(product.deps, product.ida, { heldFor: 5 });
  const held = await hold({ leavesAt: null });
  const [row] = await viewHeld(product.deps, product.ida);
  expect(row).toMatchObject({ id: held, leavesAt: now() + 5 * MINUTE, own: true });
  await hastenHeld(product.deps, product.ida, { id: held });
  expect(await arrived()).toBe(1);
  const { rows } = await listLedger(product.deps, product.ida, ledgerInput.parse({}));
  expect(rows.find(({ action }) => action === 'dispatch.hastened')).toMatchObject({
    actor: { id: product.ida.id },
    details: { held },
  });
  await putWorkSettings(product.deps, product.ida, { heldFor: 0 });
});

test('one that is stopped is a draft again, as it was composed', async () => {
  const body = {
    sheet: { ...EMPTY_SHEET, documents: [document], rows: [rowOf(address(), 'person')] },
    subject: 'Composed',
    note: 'A note',
    watermark: [],
    way: { form: 'link', delivery: 'mail', titleOnCover: false, noteInMail: true, reason: '' },
    waved: [],
  };
  const kept = await keepDraft(product.deps, product.ida, keepDraftInput.parse({ id: null, body }));
  const held = await hold({ draft: kept.id });
  const begin = (draft: typeof kept.id) =>
    startCompose(product.deps, product.ida, { draft, chosen: [] });
  expect((await begin(kept.id)).draft).toBeNull();
  const { draft } = await stopHeld(product.deps, product.ida, { id: held });
  if (draft === null) throw new Error('there is no draft');
  expect((await begin(draft)).draft?.body).toEqual(body);
  product.clock.set(now() + DAY);
  expect(await sendHeld(product.deps)).toBe(0);
  expect(await arrived()).toBe(0);
});

test('one whose document was revoked meanwhile does not leave, and says why', async () => {
  const held = await hold();
  await revokeDocument(product.deps, product.ida, { id: document, reason: 'x' });
  product.clock.set(now() + 10 * MINUTE);
  await sendHeld(product.deps);
  expect(await arrived()).toBe(0);
  const [row] = await viewHeld(product.deps, product.ida);
  expect(row).toMatchObject({ id: held, problem: { problem: 'title-revoked' } });
  const { rows } = await listLedger(product.deps, product.ida, ledgerInput.parse({}));
  expect(JSON.stringify(rows)).toContain('title-revoked');
  await stopHeld(product.deps, product.ida, { id: held });
  expect(await waiting()).toEqual([]);
});

test('one whose sender may not send any more does not leave', async () => {
  const nils = await joinStaff(product, 'sender', `nils-held-${String(round)}`);
  const theirs = await protect({ ...product, ida: nils }, await drawing(1));
  const held = await hold({ documents: [theirs] }, nils);
  await changeStaff(product.deps, product.ida, { id: nils.id, disabled: true });
  product.clock.set(now() + 10 * MINUTE);
  await sendHeld(product.deps);
  expect(await arrived()).toBe(0);
  const rows = await viewHeld(product.deps, product.ida);
  expect(rows.find(({ id }) => id === held)?.problem).toMatchObject({ problem: 'sender-gone' });
  await stopHeld(product.deps, product.ida, { id: held });
});

test('what could not leave is refused when it is composed, also for the time it leaves', async () => {
  await expect(
    sendDocuments(
      product.deps,
      product.ida,
      input({
        terms: { rights: ['read'], from: null, until: now() + MINUTE, prints: null },
      }),
    ),
  ).rejects.toMatchObject({ problem: 'an-end-past' });
});

test('somebody else’s is neither seen nor stopped by a sender', async () => {
  const held = await hold();
  const nils = await joinStaff(product, 'sender', `nils-looks-${String(round)}`);
  expect(await viewHeld(product.deps, nils)).toEqual([]);
  for (const act of [stopHeld, hastenHeld])
    await expect(act(product.deps, nils, { id: held })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
  await stopHeld(product.deps, product.ida, { id: held });
});

test('what another program wrote there is not sent, nor made this product’s own', async () => {
  const held = await hold();
  const outside = createClient({ url: `file:${path.join(product.folder, 'embargo.db')}` });
  await outside.execute({
    sql: `UPDATE held_dispatches SET body = replace(body, ?, ?) WHERE id = ?`,
    args: [address(), 'thief@elsewhere.example', held],
  });
  outside.close();
  await expect(hastenHeld(product.deps, product.ida, { id: held })).rejects.toMatchObject({
    problem: 'rows-not-ours',
  });
  product.clock.set(now() + 10 * MINUTE);
  await sendHeld(product.deps);
  expect(await waiting()).toEqual([]);
  expect(await findRecipients(product.deps.db.read, ['thief@elsewhere.example'])).toEqual([]);
});

test('the ledger holds with all of it', async () => {
  const { publicKey } = product.deps.recorder.signer;
  const { problems } = await verifyLedger(product.deps.db.read, { publicKey });
  // What another program wrote was reported, and stays reported.
  expect(problems.filter(({ kind }) => kind !== 'reported')).toEqual([]);
});
