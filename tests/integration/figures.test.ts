// A figure of opens or refusals on any list is the number of the entries that it leads to.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import type { LedgerInput } from '@/contracts/ledger';
import { revokeGrants } from '@/server/services/change-access';
import { grantRows } from '@/server/services/grant-rows';
import { listDispatches } from '@/server/services/list-dispatches';
import { listDocuments } from '@/server/services/list-documents';
import { listLedger } from '@/server/services/list-entries';
import { listPeople } from '@/server/services/manage-people';
import { openDocument } from '@/server/services/open-document';
import { enterCode, requestCode } from '@/server/services/prove-address';
import {
  newPublicKey,
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  stranger,
  type Product,
} from '../support/product';

let product: Product;
const documents: DocumentId[] = [];

/** Two documents, one person with two ways to one of them, opens over several days, refusals, a wrong code and a forwarded link. */
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida, clock } = product;
  for (const title of ['Keel', 'Rudder'])
    documents.push(await protect(product, await drawing(1), title));
  const [keel = 'doc_', rudder = 'doc_'] = documents;
  const first = await dispatch(product, documents, ['mira@yard.example', 'jon@works.example'], {
    until: START + 30 * DAY,
  });
  const second = await dispatch(product, [keel], ['mira@yard.example'], {
    until: START + 40 * DAY,
  });
  const open = async (token: string, address: string, document: DocumentId) =>
    openDocument(deps, await prove(product, token, address), { token, document });
  for (const day of [0, 1, 2]) {
    clock.set(START + day * DAY + HOUR);
    await open(first.tokenOf('mira@yard.example'), 'mira@yard.example', keel);
    await open(first.tokenOf('jon@works.example'), 'jon@works.example', rudder);
  }
  await revokeGrants(deps, ida, { grants: first.grants.map(({ id }) => id) });
  clock.set(START + 4 * DAY);
  await open(second.tokenOf('mira@yard.example'), 'mira@yard.example', keel);
  await open(first.tokenOf('jon@works.example'), 'jon@works.example', rudder);
  await open(first.tokenOf('jon@works.example'), 'curious@else.example', rudder);
  await requestCode(deps, stranger(), {
    token: second.tokenOf('mira@yard.example'),
    address: 'mira@yard.example',
  });
  await enterCode(deps, stranger(), {
    token: second.tokenOf('mira@yard.example'),
    address: 'mira@yard.example',
    code: '000 000',
    kept: false,
    publicKey: await newPublicKey(),
  }).catch(() => undefined);
});
afterAll(async () => {
  await product.close();
});

const entries = async (input: LedgerInput): Promise<number> =>
  (await listLedger(product.deps, product.ida, input)).total;

test('of the lists of dispatches, documents and people', async () => {
  const { deps, ida } = product;
  const sent = await listDispatches(deps);
  expect(sent.map(({ opens }) => opens)).toEqual(expect.arrayContaining([3, 4]));
  for (const { id, opens, refusals } of sent)
    expect([opens, refusals]).toEqual([
      await entries({ dispatch: [id], kind: ['opened'] }),
      await entries({ dispatch: [id], kind: ['refused'] }),
    ]);
  for (const { id, opens } of (await listDocuments(deps, ida, { q: '' })).rows)
    expect(opens).toBe(await entries({ document: [id], kind: ['opened'] }));
  const people = (await listPeople(deps, ida, { q: '' })).rows;
  expect(people.map(({ opens }) => opens).sort()).toEqual(expect.arrayContaining([3, 4]));
  for (const { id, opens } of people)
    expect(opens).toBe(await entries({ recipient: [id], kind: ['opened'] }));
});

test('of every grant, also where one person has two on a document', async () => {
  for (const document of documents) {
    for (const { recipientId, dispatchId, opens, refusals } of await grantRows(
      product.deps,
      product.ida,
      { document },
    )) {
      expect(opens).toBe(
        await entries({
          recipient: [recipientId],
          document: [document],
          dispatch: [dispatchId],
          kind: ['opened'],
        }),
      );
      // What others tried by their link is among the entries and not theirs.
      expect(refusals).toBeLessThanOrEqual(
        await entries({ recipient: [recipientId], document: [document], kind: ['refused'] }),
      );
    }
  }
});
