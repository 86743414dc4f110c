// A figure of opens or refusals on any list is the number of the entries that it leads to.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { createChance } from '../../demo/chance';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import type { LedgerInput } from '@/contracts/ledger';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { grantRows } from '@/server/services/access/grant-rows';
import { viewDispatches } from '@/server/services/dispatching/list-dispatches';
import { listDocuments } from '@/server/services/documents/list-documents';
import { listLedger } from '@/server/services/ledger/list-entries';
import { listPeople } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
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

/**
 * Two documents, one person with two ways to one of them, opens over several days, refusals, a
 * wrong code and a forwarded link.
 */
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
  const sent = (await viewDispatches(deps, ida, { q: '' })).rows;
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

describe('whatever is filtered by', () => {
  /** Values that entries here have, by dimension, and one that none has. */
  async function values(): Promise<
    Readonly<
      Record<'document' | 'recipient' | 'dispatch' | 'actor' | 'kind' | 'reason', readonly string[]>
    >
  > {
    const { rows } = await listLedger(product.deps, product.ida, { each: 'yes' });
    const seen = (of: (row: (typeof rows)[number]) => string | null): string[] => [
      ...new Set(rows.map(of).filter((value) => value !== null)),
      'nothing',
    ];
    return {
      document: seen(({ document }) => document),
      recipient: seen(({ recipient }) => recipient),
      dispatch: seen(({ dispatch }) => dispatch),
      actor: seen(({ actor }) => actor.id),
      kind: ['opened', 'refused', 'staff', 'proof'],
      reason: seen(({ reason }) => reason),
    };
  }

  test('as many entries are counted as are listed: with, without, own, and both together', async () => {
    const all = await values();
    const dimensions = Object.keys(all) as (keyof typeof all)[];
    const chance = createChance(13);
    const pick = <T>(from: readonly T[]): T => from[Math.floor(chance() * from.length)] as T;
    for (let i = 0; i < 250; i++) {
      const wanted = Object.fromEntries(
        dimensions.filter(() => chance() < 0.25).map((name) => [name, [pick(all[name])]]),
      );
      const without = dimensions
        .filter(() => chance() < 0.25)
        .map((dimension) => ({ dimension, value: pick(all[dimension]) }));
      const input = {
        ...wanted,
        ...(without.length === 0 ? {} : { without }),
        ...(chance() < 0.3 ? { own: 'yes' as const } : {}),
        each: 'yes' as const,
      } satisfies LedgerInput;
      const { rows, total } = await listLedger(product.deps, product.ida, input);
      expect(`${JSON.stringify(input)}: ${String(total)}`).toBe(
        `${JSON.stringify(input)}: ${String(rows.length)}`,
      );
    }
  });
});
