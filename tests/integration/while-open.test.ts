// A document that is open follows every change of what may be done with it.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId, GrantId, LicenceId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { answerRequests, listRequests } from '@/server/services/requests/answer-requests';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import type { ReaderActor } from '@/server/services/base/deps';
import { grantRows } from '@/server/services/access/grant-rows';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { openDocument } from '@/server/services/reading/open-document';
import { passOn } from '@/server/services/access/pass-on';
import { checkOpen, watchOpen } from '@/server/services/reading/watch-open';
import { printDocument } from '@/server/services/reading/take-copies';
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
let sent: Awaited<ReturnType<typeof dispatch>>;
let mira: ReaderActor;
let licence: LicenceId;
let grant: GrantId;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  sent = await dispatch(product, [document], ['mira@yard.example'], {
    rights: ['read', 'print', 'pass-on'],
    prints: 3,
    conditions: { passOn: { people: 2, domains: null, steps: 1 } },
  });
  mira = await prove(product, sent.tokenOf('mira@yard.example'), 'mira@yard.example');
  grant = sent.grants[0]?.id ?? 'grt_';
  licence = await opened(mira, sent.tokenOf('mira@yard.example'));
});
afterAll(async () => {
  await product.close();
});

async function opened(reader: ReaderActor, token: string): Promise<LicenceId> {
  const result = await openDocument(product.deps, reader, { token, document });
  if (result.outcome === 'refused') throw new Error(result.reason);
  return result.licence;
}
const state = () => checkOpen(product.deps, mira, { licence });
async function change(terms: object): Promise<void> {
  const [row] = await grantsByIds(product.deps.db.read, [grant]);
  await changeGrants(product.deps, product.ida, {
    changes: [{ grant, revision: row?.revision ?? 0, ...terms }],
  });
}

/** Does something, and waits until the open reader hears that something changed. */
async function heard(act: () => Promise<unknown>): Promise<void> {
  let tell = (): void => undefined;
  const told = new Promise<void>((resolve) => {
    tell = resolve;
  });
  const end = await watchOpen(product.deps, mira, { licence }, tell);
  // The watch begins at the end of the ledger, which it looks up by itself.
  await new Promise((resolve) => {
    setTimeout(resolve, 50);
  });
  await act();
  await told;
  end();
}

test('rights that shrink and grow, and ends that move', async () => {
  await heard(() => change({ rights: ['read', 'pass-on'], until: START + 3 * DAY }));
  expect(await state()).toMatchObject({
    outcome: 'granted',
    until: START + 3 * DAY,
    rights: { print: { granted: false, why: 'not-given' } },
  });
  await heard(() =>
    change({ rights: ['read', 'copy', 'print', 'pass-on'], prints: 2, until: START + 30 * DAY }),
  );
  expect(await state()).toMatchObject({
    until: START + 30 * DAY,
    rights: { copy: { granted: true }, print: { granted: true, printsLeft: 2 } },
  });
});

test('prints left, also those that somebody made of what was passed on to them', async () => {
  await heard(async () => {
    await printDocument(product.deps, mira, { licence, from: 1, to: 1 });
  });
  expect(await state()).toMatchObject({ rights: { print: { printsLeft: 1 } } });
  await heard(() =>
    passOn(product.deps, mira, {
      document,
      address: 'per@yard.example',
      rights: ['read', 'print'],
      until: START + 5 * DAY,
      note: '',
    }),
  );
  expect(await state()).toMatchObject({
    passedOn: [{ address: 'per@yard.example', revoked: false }],
  });
  const row = (await grantRows(product.deps, product.ida, { dispatch: sent.id })).find(
    ({ address }) => address === 'per@yard.example',
  );
  const token = row?.link.split('/').at(-1) ?? '';
  const per = await prove(product, token, 'per@yard.example');
  const theirs = await opened(per, token);
  await heard(async () => {
    await printDocument(product.deps, per, { licence: theirs, from: 1, to: 1 });
  });
  expect(await state()).toMatchObject({
    rights: { print: { granted: false, why: 'prints-used-up' } },
  });
});

test('answers to what was asked', async () => {
  await askForMore(product.deps, mira, {
    token: sent.tokenOf('mira@yard.example'),
    document,
    right: null,
    until: START + 60 * DAY,
    reason: 'The hull is not dry yet',
  });
  expect(await state()).toMatchObject({ requests: [{ state: 'waiting' }] });
  const requests = (await listRequests(product.deps, product.ida, sent.id)).map(({ id }) => id);
  await heard(() =>
    answerRequests(product.deps, product.ida, {
      requests,
      right: null,
      until: null,
      prints: null,
      words: 'Not this time.',
    }),
  );
  expect(await state()).toMatchObject({
    requests: [{ state: 'declined', answer: 'Not this time.' }],
  });
});

test('what ends says when, and what is given back is read on in the same open', async () => {
  product.clock.set(START + HOUR);
  await heard(() => revokeGrants(product.deps, product.ida, { grants: [grant] }));
  expect(await state()).toEqual({ outcome: 'refused', reason: 'revoked', at: START + HOUR });
  await heard(() => reinstateGrants(product.deps, product.ida, { grants: [grant] }));
  expect(await state()).toMatchObject({ outcome: 'granted' });
  await heard(() =>
    putCeiling(product.deps, product.ida, {
      level: 'organisation',
      subject: '',
      limits: { ...NO_LIMITS, rights: ['read'] },
      seen: null,
    }),
  );
  expect(await state()).toMatchObject({
    rights: { copy: { granted: false, why: 'above-ceiling' } },
  });
});
