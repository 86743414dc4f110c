// Who turns pages is known by what is held of their device, and never by what it no longer is.
import path from 'node:path';
import { createClient } from '@libsql/client/sqlite3';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { LicenceId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import type { Container } from '@/server/container';
import { needReader } from '@/server/http/session';
import type { ReaderActor } from '@/server/services/base/deps';
import { openDocument } from '@/server/services/reading/open-document';
import { leaveDevice } from '@/server/services/reading/own-devices';
import { renderPage } from '@/server/services/reading/read-pages';
import { browserOf, signedHeaders, type Browser } from '../attack/target';
import { dispatch, drawing, protect, startProduct, START, type Product } from '../support/product';

let product: Product;
let browser: Browser;
let licence: LicenceId;
let people = 0;

const AT = '/api/v1/reader/licences/lic_any/pages/1';

async function asks(by = browser, container: Container = product.container): Promise<ReaderActor> {
  const url = product.deps.publicUrl;
  const headers = await signedHeaders({ url }, by, 'GET', AT);
  return needReader(container, new Request(url + AT, { headers }), '', true);
}

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  const address = `held${String(++people)}@x.example`;
  const document = await protect(product, await drawing(3));
  const { tokenOf } = await dispatch(product, [document], [address]);
  const token = tokenOf(address);
  browser = await browserOf(product, address, token);
  const opened = await openDocument(product.deps, await asks(), { token, document });
  if (opened.outcome !== 'granted') throw new Error(opened.reason);
  ({ licence } = opened);
});

test('the tables are read for the first page alone, and again after any change', async () => {
  let asked = 0;
  const { integrity } = product.deps;
  const broken: typeof integrity.broken = (db, rows) => {
    asked++;
    return integrity.broken(db, rows);
  };
  const deps = { ...product.deps, integrity: { ...integrity, broken } };
  const container = { ...product.container, deps };
  await asks(browser, container);
  asked = 0;
  const [first, second] = [await asks(browser, container), await asks(browser, container)];
  expect(second).toEqual(first);
  expect(asked).toBe(0);
  await product.deps.db.write(() => Promise.resolve());
  await asks(browser, container);
  expect(asked).toBe(1);
});

test('a device that was left is nobody’s', async () => {
  await leaveDevice(product.deps, await asks());
  await expect(asks()).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
});

test('a device whose time is over is nobody’s, without any change', async () => {
  await asks();
  product.clock.set(START + 400 * DAY);
  await expect(asks()).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
  product.clock.set(START);
  await asks();
});

test('whoever has the cookie and not the key is nobody, held or not', async () => {
  await asks();
  const other = await browserOf(product, browser.address, browser.token);
  const copied = { ...other, cookie: browser.cookie };
  await expect(asks(copied)).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
});

test.each([1, 2])(
  'a device that another program ended after page %i is sent no other, although it is held',
  async (pages) => {
    const turn = async () =>
      renderPage(product.deps, await asks(), { licence, page: 3, width: 300 });
    for (let page = 1; page < pages; page++) await turn();
    const { device } = await asks();
    const client = createClient({ url: `file:${path.join(product.folder, 'embargo.db')}` });
    await client.execute({
      sql: 'UPDATE devices SET ended_at = ? WHERE id = ?',
      args: [START, device],
    });
    client.close();
    await expect(turn()).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    // With the next job of the queue it is not held any more either.
    await product.deps.db.writeAside(() => Promise.resolve());
    await expect(asks()).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
  },
);
