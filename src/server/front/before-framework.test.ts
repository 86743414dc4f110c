import { createServer, get as httpGet, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { answerPagePictures, beforeFramework } from '@/server/front/before-framework';

let server: Server;
let at = '';
const asked: { readonly request: Request; readonly params: Record<string, string> }[] = [];
let hold: Promise<void> = Promise.resolve();

beforeAll(async () => {
  server = createServer((request, response) => {
    const early = beforeFramework(request, response, 'https://files.brackwater.example');
    if (early === null) response.writeHead(299).end('the framework');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  at = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
});
afterAll(() => {
  server.close();
});

const PAGE = '/api/v1/reader/licences/lic_one/pages/12';

test('until the product is up the framework answers', async () => {
  expect((await fetch(`${at}${PAGE}`)).status).toBe(299);
});

test('a page picture is answered by its handler, with all that was asked', async () => {
  answerPagePictures(async (request, { params }) => {
    asked.push({ request, params: await params });
    await hold;
    return new Response(Uint8Array.of(0, 200, 1), {
      status: 403,
      headers: { 'content-type': 'image/png', 'cache-control': 'no-store' },
    });
  });
  const answer = await fetch(`${at}${PAGE}?width=800`, { headers: { 'device-proof': '1 2 3' } });
  expect(answer.status).toBe(403);
  expect(answer.headers.get('cache-control')).toBe('no-store');
  expect([...new Uint8Array(await answer.arrayBuffer())]).toEqual([0, 200, 1]);
  expect(asked[0]?.params).toEqual({ licence: 'lic_one', page: '12' });
  expect(asked[0]?.request.url).toBe(`https://files.brackwater.example${PAGE}?width=800`);
  expect(asked[0]?.request.headers.get('device-proof')).toBe('1 2 3');
});

test.each([
  ['what is no number of a page', 'GET', `${PAGE}x`],
  ['what lies below a page', 'GET', `${PAGE}/text`],
  ['another way to write it', 'GET', PAGE.replace('pages', '%70ages')],
  ['a change', 'POST', PAGE],
])('%s goes to the framework', async (_name, method, address) => {
  expect((await fetch(`${at}${address}`, { method })).status).toBe(299);
});

test('who is gone is not waited for', async () => {
  let release = (): void => undefined;
  hold = new Promise<void>((resolve) => {
    release = resolve;
  });
  const before = asked.length;
  const request = httpGet(`${at}${PAGE}`);
  request.on('error', () => undefined);
  await expect.poll(() => asked.length).toBe(before + 1);
  expect(asked.at(-1)?.request.signal.aborted).toBe(false);
  request.destroy();
  await expect.poll(() => asked.at(-1)?.request.signal.aborted).toBe(true);
  release();
});
