// What is held between two pages of one reader never outlives a change, whoever made it.
import path from 'node:path';
import { createClient } from '@libsql/client/sqlite3';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId, GrantId, LicenceId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { viewDocument } from '@/server/services/documents/view-document';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { openDocument } from '@/server/services/reading/open-document';
import { leaveDevice } from '@/server/services/reading/own-devices';
import { renderPage } from '@/server/services/reading/read-pages';
import {
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  START,
  type Product,
} from '../support/product';

let product: Product;
let reader: ReaderActor;
let document: DocumentId;
let licence: LicenceId;
let grant: GrantId;
let people = 0;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

beforeEach(async () => {
  document = await protect(product, await drawing(6));
  const address = `standing${String(++people)}@x.example`;
  const sent = await dispatch(product, [document], [address]);
  const token = sent.tokenOf(address);
  reader = await prove(product, token, address);
  const result = await openDocument(product.deps, reader, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  ({ licence } = result);
  grant = sent.grants[0]?.id ?? 'grt_';
});

const turn = (page: number, deps: Deps = product.deps) =>
  renderPage(deps, reader, { licence, page, width: 300 });
const shownEntries = async (): Promise<number> =>
  (await listEntries(product.deps.db.read, {}, 200)).filter(
    ({ entry }) => entry.action === 'page.shown' && entry.licence === licence,
  ).length;

/** The same product, where something happens while a page is drawn. */
function while_(happen: () => Promise<unknown>): Deps {
  const { renderer } = product.deps;
  const run: typeof renderer.run = async (task, asker) => {
    const picture = await renderer.run(task, asker);
    await happen();
    return picture;
  };
  return { ...product.deps, renderer: { ...renderer, run } };
}

/** Another program that writes into the database. */
async function outside(statement: string): Promise<void> {
  const client = createClient({ url: `file:${path.join(product.folder, 'embargo.db')}` });
  await client.execute(statement);
  client.close();
}

const CHANGES: readonly [what: string, make: () => Promise<unknown>, reason: string][] = [
  [
    'the grant is revoked',
    () => revokeGrants(product.deps, product.ida, { grants: [grant], reason: '' }),
    'revoked',
  ],
  [
    'the document is revoked',
    () => revokeDocument(product.deps, product.ida, { id: document, reason: '' }),
    'document-revoked',
  ],
  [
    'a ceiling takes reading away',
    () =>
      putCeiling(product.deps, product.ida, {
        level: 'document',
        subject: document,
        limits: { ...NO_LIMITS, rights: ['print'] },
        seen: null,
      }),
    'read-not-allowed',
  ],
  [
    'the key is destroyed',
    async () => {
      const { reference } = await viewDocument(product.deps, product.ida, { id: document });
      await destroyKey(product.deps, product.ida, { id: document, typed: reference });
    },
    'key-destroyed',
  ],
  [
    'another program writes the grant over',
    () => outside(`UPDATE grants SET until_at = until_at + 1 WHERE id = '${grant}'`),
    'not-addressed',
  ],
];

describe('a reader who turns pages', () => {
  test('has each written down once, and the tables are read for the first alone', async () => {
    let asked = 0;
    const { integrity } = product.deps;
    const deps: Deps = {
      ...product.deps,
      integrity: {
        ...integrity,
        broken: (db, rows) => {
          asked++;
          return integrity.broken(db, rows);
        },
      },
    };
    await turn(1, deps);
    expect(asked).toBeGreaterThan(0);
    asked = 0;
    for (const page of [2, 3, 2, 3, 1]) expect(await turn(page, deps)).toHaveProperty('bytes');
    expect(asked).toBe(0);
    expect(await shownEntries()).toBe(3);
  });

  test.each(CHANGES)('is sent nothing more once %s', async (_what, change, reason) => {
    expect(await turn(1)).toHaveProperty('bytes');
    await change();
    expect(await turn(2)).toMatchObject({ outcome: 'refused', reason });
    expect(await turn(1)).toMatchObject({ outcome: 'refused', reason });
    expect(await shownEntries()).toBe(2 + 1);
  });

  test.each(CHANGES)('is not sent what was being drawn when %s', async (_what, change, reason) => {
    expect(await turn(1)).toHaveProperty('bytes');
    expect(await turn(2, while_(change))).toMatchObject({ outcome: 'refused', reason });
  });

  test('is sent nothing on a device that was left meanwhile', async () => {
    expect(await turn(1)).toHaveProperty('bytes');
    await expect(
      turn(
        2,
        while_(() => leaveDevice(product.deps, reader)),
      ),
    ).rejects.toMatchObject({
      code: 'NOT_SIGNED_IN',
    });
  });

  test('does not get at another one’s open', async () => {
    expect(await turn(1)).toHaveProperty('bytes');
    const other = { ...reader, device: 'dev_another0000000000000' as const };
    await expect(
      renderPage(product.deps, other, { licence, page: 2, width: 300 }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('is refused the moment the window ends, without any change', async () => {
    expect(await turn(1)).toHaveProperty('bytes');
    const late: Deps = {
      ...product.deps,
      clock: { ...product.deps.clock, now: () => START + 31 * DAY },
    };
    expect(await turn(2, late)).toMatchObject({ outcome: 'refused' });
  });

  test('is not sent what was being drawn when the window ended', async () => {
    expect(await turn(1)).toHaveProperty('bytes');
    let now = product.deps.clock.now();
    const deps: Deps = {
      ...while_(() => Promise.resolve((now = START + 31 * DAY))),
      clock: { ...product.deps.clock, now: () => now },
    };
    expect(await turn(2, deps)).toMatchObject({ outcome: 'refused' });
  });

  test('of twenty pages at once while access ends gets none that was noted after its end', async () => {
    await turn(1);
    const pages = Array.from({ length: 20 }, (_, i) => turn((i % 5) + 2));
    const revoked = revokeGrants(product.deps, product.ida, { grants: [grant], reason: '' });
    const results = await Promise.all(pages);
    await revoked;
    const entries = await listEntries(product.deps.db.read, {}, 200);
    const end = entries.find(({ entry }) => entry.action === 'grant.revoked')?.entry.sequence ?? 0;
    const late = entries.filter(
      ({ entry }) =>
        entry.action === 'page.shown' && entry.outcome === 'granted' && entry.sequence > end,
    );
    expect(late).toEqual([]);
    expect(results.length).toBe(20);
  });
});
