// Why access was taken or given back: kept in the ledger where it is said, asked for where the organisation wants that.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId, GrantId } from '@/core/base/ids';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateDocument, revokeDocument } from '@/server/services/access/revoke-document';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { revokeAccess } from '@/server/services/access/revoke-access';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { listLedger } from '@/server/services/ledger/list-entries';
import { blockPerson } from '@/server/services/people/manage-people';
import { putWorkSettings, viewWorkSettings } from '@/server/services/base/work-settings';
import { workSettings, type WorkChange } from '@/contracts/settings';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';

const DEFAULTS = workSettings.parse({});
let product: Product;
let document: DocumentId;
let grant: GrantId;
let recipient: Parameters<typeof blockPerson>[2]['id'];
let dispatchId: Awaited<ReturnType<typeof dispatch>>['id'];
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  const sent = await dispatch(product, [document], ['mira@yard.example'], {
    rights: ['read', 'print'],
    until: START + 20 * DAY,
  });
  dispatchId = sent.id;
  grant = sent.grants[0]?.id ?? 'grt_';
  recipient = sent.grants[0]?.recipientId ?? 'rcp_';
});
afterAll(async () => {
  await product.close();
});

async function change(terms: object, reason?: string) {
  const [row] = await grantsByIds(product.deps.db.read, [grant]);
  return changeGrants(product.deps, product.ida, {
    changes: [{ grant, revision: row?.revision ?? 0, ...terms }],
    reason,
  });
}
const newest = async () =>
  (await listLedger(product.deps, product.ida, {})).rows.find(
    ({ action }) => action !== 'mail.delivered',
  );

/** Every act that takes access away or gives it back, in an order in which each can be done. */
const ACTS: readonly (readonly [string, (reason?: string) => Promise<unknown>])[] = [
  [
    'grant.revoked',
    (reason) => revokeGrants(product.deps, product.ida, { grants: [grant], reason }),
  ],
  [
    'grant.reinstated',
    (reason) => reinstateGrants(product.deps, product.ida, { grants: [grant], reason }),
  ],
  ['grant.changed', (reason) => change({ until: START + 10 * DAY }, reason)],
  [
    'document.revoked',
    (reason) => revokeDocument(product.deps, product.ida, { id: document, reason }),
  ],
  [
    'document.reinstated',
    (reason) => reinstateDocument(product.deps, product.ida, { id: document, reason }),
  ],
  [
    'recipient.blocked',
    (reason) => blockPerson(product.deps, product.ida, { id: recipient, blocked: true, reason }),
  ],
  [
    'recipient.unblocked',
    (reason) => blockPerson(product.deps, product.ida, { id: recipient, blocked: false, reason }),
  ],
  [
    'grant.revoked',
    (reason) =>
      revokeAccess(product.deps, product.ida, {
        scope: { kind: 'dispatch', dispatch: dispatchId },
        reason,
      }),
  ],
];
const undo = async () => {
  await putWorkSettings(product.deps, product.ida, { reasonsAsked: false });
  await reinstateGrants(product.deps, product.ida, { grants: [grant] });
  await change({ until: START + 20 * DAY });
};

test('a reason can be given with each of them, and none need be', async () => {
  for (const [action, act] of ACTS) {
    await act(`because of ${action}`);
    expect(await newest()).toMatchObject({ action, text: `because of ${action}` });
  }
  await undo();
  for (const [, act] of ACTS) await act();
  await undo();
});

test('where the organisation asks for it, nothing happens without one', async () => {
  await putWorkSettings(product.deps, product.ida, { ...DEFAULTS, reasonsAsked: true });
  expect(await viewWorkSettings(product.deps)).toEqual({ ...DEFAULTS, reasonsAsked: true });
  for (const [action, act] of ACTS) {
    const before = (await newest())?.sequence;
    await expect(act()).rejects.toMatchObject({ code: 'REASON_NEEDED' });
    expect((await newest())?.sequence).toBe(before);
    await act('It is over');
    expect(await newest()).toMatchObject({ action, text: 'It is over' });
  }
  await expect(
    destroyKey(product.deps, product.ida, { id: document, typed: await referenceOf() }),
  ).rejects.toMatchObject({ code: 'REASON_NEEDED' });
  await destroyKey(product.deps, product.ida, {
    id: document,
    typed: await referenceOf(),
    reason: 'The hull was scrapped',
  });
  expect(await newest()).toMatchObject({ action: 'key.destroyed', text: 'The hull was scrapped' });
});

test('giving more needs none, and the ledger stays whole', async () => {
  await expect(change({ until: START + 40 * DAY })).resolves.toMatchObject({
    changed: [{ grant }],
  });
  expect(
    (
      await verifyLedger(product.deps.db.read, {
        publicKey: product.deps.recorder.signer.publicKey,
      })
    ).problems,
  ).toEqual([]);
});

async function referenceOf(): Promise<string> {
  return (await findDocument(product.deps.db.read, document))?.document.reference ?? '';
}

test('two who change different settings at once both have their way', async () => {
  const put = (change: WorkChange) => putWorkSettings(product.deps, product.ida, change);
  await put(DEFAULTS);
  await Promise.all([
    put({ reasonsAsked: true }),
    put({ endsTold: 3 }),
    put({ checkpointsOpen: true }),
  ]);
  expect(await viewWorkSettings(product.deps)).toEqual({
    ...DEFAULTS,
    reasonsAsked: true,
    endsTold: 3,
    checkpointsOpen: true,
  });
  await put(DEFAULTS);
});
