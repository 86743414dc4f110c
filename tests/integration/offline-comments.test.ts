// Comments that were made without a connection: whose are taken in later, when, and how often.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { HOUR } from '@/core/base/time';
import { newId, type LicenceId } from '@/core/base/ids';
import { newBoxKeyPair } from '@/core/licence/key-box';
import type { DispatchInput } from '@/contracts/dispatch';
import type { OfflineComment } from '@/contracts/comments';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { documentComments } from '@/server/services/comments/staff-comments';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { blockPerson } from '@/server/services/people/manage-people';
import { handInComments } from '@/server/services/comments/offline-comments';
import { openOwn, sendOwn, takeOwnKey, type SentOwn } from '../support/own-machine';
import { present } from '../support/present';
import { startProduct, type Product } from '../support/product';

let product: Product;
let began: number;
const { boxKey } = await newBoxKeyPair();

beforeAll(async () => {
  product = await startProduct();
  began = product.clock.now();
});
afterAll(async () => {
  await product.close();
});

type Away = SentOwn & { readonly licence: LicenceId };

/** Somebody who has the key on their device, and five hours of reading without asking. */
async function goesAway(rights: DispatchInput['terms']['rights']): Promise<Away> {
  product.clock.set(began);
  const sent = await sendOwn(product, { rights, conditions: { offline: 5 * HOUR } });
  const licence = await openOwn(product, sent);
  await takeOwnKey(product, sent, licence, boxKey);
  return { ...sent, licence };
}

const written = ({ licence }: Away, other: Partial<OfflineComment> = {}): OfflineComment => ({
  id: newId('comment', product.deps.random),
  licence,
  page: 2,
  place: { kind: 'point', left: 2_000, top: 3_000 },
  text: 'The frame at 42 should be thicker.',
  madeAt: began + HOUR,
  ...other,
});

const tell = async ({ reader }: Away, comments: readonly OfflineComment[]) =>
  (await handInComments(product.deps, reader, { comments: [...comments] })).comments;

const on = async ({ document }: Away) =>
  (await documentComments(product.deps, product.ida, { id: document })).comments;

test('stands beside the others once, with when it was made and when it was told', async () => {
  const away = await goesAway(['read', 'comment']);
  product.clock.set(began + 4 * HOUR);
  const comment = written(away);
  const [first, twice] = await Promise.all([
    tell(away, [comment]),
    tell(away, [comment, { ...comment, text: 'Another' }]),
  ]);
  const taken = { id: comment.id, isTaken: true };
  expect([first, twice]).toEqual([[taken], [taken, taken]]);
  expect(await on(away)).toMatchObject([{ id: comment.id, page: 2, madeAt: began + HOUR }]);
  const entries = (await listEntries(product.deps.db.read, {}, 50))
    .map(({ entry }) => entry)
    .filter(({ action, document }) => action === 'comment.made' && document === away.document);
  expect(entries).toMatchObject([{ details: { comment: comment.id, page: 2, offline: true } }]);
  const [entry] = entries;
  expect(Date.parse(entry?.occurredAt ?? '') - began).toBe(HOUR);
  expect(Date.parse(entry?.receivedAt ?? '') - began).toBe(4 * HOUR);
});

test('is taken after access has ended, which they could not know', async () => {
  const away = await goesAway(['read', 'comment']);
  await revokeGrants(product.deps, product.ida, { grants: away.grants.map(({ id }) => id) });
  expect(await tell(away, [written(away)])).toMatchObject([{ isTaken: true }]);
  expect(await on(away)).toHaveLength(1);
});

test('is not taken from whoever was shut out themselves', async () => {
  const away = await goesAway(['read', 'comment']);
  const { recipient } = away.reader;
  await blockPerson(product.deps, product.ida, { id: present(recipient), blocked: true });
  expect(await tell(away, [written(away)])).toMatchObject([{ isTaken: false }]);
});

test('is not taken without the right, after its time, or beyond the document', async () => {
  const silent = await goesAway(['read']);
  expect(await tell(silent, [written(silent)])).toMatchObject([{ isTaken: false }]);
  const away = await goesAway(['read', 'comment']);
  product.clock.set(began + 9 * HOUR);
  const none = [written(away, { madeAt: began + 5 * HOUR }), written(away, { page: 3 })];
  expect(await tell(away, none)).toMatchObject([{ isTaken: false }, { isTaken: false }]);
  expect(await on(away)).toEqual([]);
});

test('is not taken for a document whose key is destroyed', async () => {
  const away = await goesAway(['read', 'comment']);
  const { document } = present(await findDocument(product.deps.db.read, away.document));
  const asked = { id: away.document, typed: document.reference };
  await destroyKey(product.deps, product.ida, asked);
  expect(await tell(away, [written(away)])).toMatchObject([{ isTaken: false }]);
});

test('is nobody else’s: neither the open it was made in, nor the comment it says it is', async () => {
  const away = await goesAway(['read', 'comment']);
  const other = await goesAway(['read', 'comment']);
  expect(await tell(other, [written(away)])).toEqual([]);
  const comment = written(away);
  await tell(away, [comment]);
  expect(await tell(other, [written(other, { id: comment.id })])).toMatchObject([
    { isTaken: false },
  ]);
  expect(await on(other)).toEqual([]);
  expect(await on(away)).toHaveLength(1);
});
