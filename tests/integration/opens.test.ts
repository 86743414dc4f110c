// Who opened how often, from when to when, and who never did; the same as CSV.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { checkDocument } from '@/server/services/documents/check-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { exportOpens, viewOpens } from '@/server/services/ledger/count-opens';
import type { ReaderActor } from '@/server/services/base/deps';
import { listLedger } from '@/server/services/ledger/list-entries';
import { openDocument } from '@/server/services/reading/open-document';
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
let documents: DocumentId[];
let sent: Awaited<ReturnType<typeof dispatch>>;
const id = (address: string) =>
  sent.grants.find((grant) => grant.address === address)?.recipientId ?? 'rcp_';
beforeAll(async () => {
  product = await startProduct();
  const bytes = await drawing(1);
  documents = [await protect(product, bytes, 'Lines'), await protect(product, bytes, 'Deck')];
  sent = await dispatch(
    product,
    documents,
    ['often@yard.example', 'once@yard.example', 'never@yard.example', 'cut@port.example'],
    { until: START + 5 * DAY },
  );
  const readers = new Map<string, ReaderActor>();
  for (const { address } of sent.grants)
    if (!readers.has(address))
      readers.set(address, await prove(product, sent.tokenOf(address), address));
  const open = async (
    address: string,
    document: DocumentId | undefined,
    day: number,
  ): Promise<void> => {
    product.clock.set(START + day * DAY);
    const reader = readers.get(address);
    if (reader !== undefined)
      await openDocument(product.deps, reader, {
        token: sent.tokenOf(address),
        document: document ?? 'doc_',
      });
  };
  for (const day of [0, 1, 3]) await open('often@yard.example', documents[0], day);
  await open('often@yard.example', documents[1], 2);
  await open('once@yard.example', documents[0], 2);
  await revokeGrants(product.deps, product.ida, {
    grants: sent.grants
      .filter(({ address }) => address === 'cut@port.example')
      .map((grant) => grant.id),
  });
  await open('cut@port.example', documents[0], 3);
  await checkDocument(product.deps, product.ida, { id: documents[0] ?? 'doc_' });
  // The tender has closed.
  product.clock.set(START + 20 * DAY);
});
afterAll(async () => {
  await product.close();
});

const view = (input: Parameters<typeof viewOpens>[2]) =>
  viewOpens(product.deps, product.ida, input);
const csv = async (input: Parameters<typeof viewOpens>[2]): Promise<string> => {
  let text = '';
  for await (const piece of await exportOpens(product.deps, product.ida, input))
    text += new TextDecoder().decode(piece);
  return text;
};

test('each person is told with their documents, first and last day, also after it has closed', async () => {
  const page = await view({});
  expect(
    page.rows.map(({ address, opens, refused, first, last }) => [
      address,
      opens,
      refused,
      first,
      last,
    ]),
  ).toEqual([
    ['often@yard.example', 4, 0, '2026-11-25', '2026-11-28'],
    ['once@yard.example', 1, 0, '2026-11-27', '2026-11-27'],
    ['cut@port.example', 0, 1, null, null],
    ['never@yard.example', 0, 0, null, null],
  ]);
  expect(page.totals).toEqual({ opens: 5, openedBy: 2, refused: 1, refusedTo: 1, neverOpened: 2 });
  expect(page.rows[0]?.days).toHaveLength(4);
  expect(page.rows[1]?.cells.map(({ document, opens }) => [document, opens]).sort()).toEqual(
    [
      [documents[0], 1],
      [documents[1], 0],
    ].sort(),
  );
});

test('it is narrowed to documents, dispatches, people, organisations and days', async () => {
  expect((await view({ document: documents[1] })).totals).toMatchObject({
    opens: 1,
    openedBy: 1,
    neverOpened: 3,
  });
  expect((await view({ dispatch: sent.id })).totals.opens).toBe(5);
  expect(
    (await view({ recipient: id('once@yard.example') })).rows.map(({ address }) => address),
  ).toEqual(['once@yard.example']);
  expect((await view({ from: '2026-11-26', to: '2026-11-27' })).totals).toMatchObject({
    opens: 3,
    refused: 0,
  });
  expect((await view({ to: '2026-11-24' })).rows).toEqual([]);
  expect((await view({ never: 'only' })).rows.map(({ address }) => address).sort()).toEqual([
    'cut@port.example',
    'never@yard.example',
    'once@yard.example',
  ]);
});

test('its figures are those of the ledger', async () => {
  for (const row of (await view({})).rows)
    for (const { document, opens, refused } of row.cells) {
      expect([
        row.address,
        (
          await listLedger(product.deps, product.ida, {
            recipient: [row.recipient],
            document: [document],
            kind: ['opened'],
          })
        ).total,
      ]).toEqual([row.address, opens]);
      expect([
        row.address,
        (
          await listLedger(product.deps, product.ida, {
            recipient: [row.recipient],
            document: [document],
            kind: ['refused'],
          })
        ).total,
      ]).toEqual([row.address, refused]);
    }
});

test('as CSV it has every open with version, device, rule and place, who never opened, and totals', async () => {
  const [head, columns, ...lines] = (await csv({})).trimEnd().split('\r\n');
  expect(head).toContain(
    'opens: 5 by 2 people; refused: 1 to 1 people; never opened anything: 2 people',
  );
  expect(columns).toBe(
    'time,person,email,organisation,reference,document,version,outcome,reason,device,browser,place,ip ' +
      'address,rule,sequence',
  );
  const opens = lines.filter((line) => line.includes(',granted,'));
  expect(opens).toHaveLength(5);
  expect(opens[0]).toMatch(
    /^2026-11-25T09:00:00\.000Z,,often@yard\.example,,REF-\d+,Lines,1,granted,,dev_\w+,[^,]+,.*,grant of D-0001,\d+$/,
  );
  expect(lines.filter((line) => line.includes(',refused,revoked,'))).toHaveLength(1);
  expect(
    lines
      .filter((line) => line.includes(',never opened,'))
      .map((line) => line.split(',').slice(2, 6).join(' '))
      .sort(),
  ).toHaveLength(5);
});
