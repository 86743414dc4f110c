// What is attacked: a product of its own, prepared in a temporary folder and served by the built
// server on the loopback.
import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, randomBytes, webcrypto } from 'node:crypto';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { DocumentId } from '@/core/base/ids';
import { makeDevice } from '@/server/services/reading/make-device';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { DispatchInput } from '@/contracts/dispatch';
import { SERVER } from '../../scripts/prepare.mjs';
import { freePort, running, type Running } from '../support/server-process';
import { dispatch, drawing, protect, startProduct, type Product } from '../support/product';

/** A person's browser: its cookie and its key. */
export type Browser = {
  readonly address: string;
  readonly network: string;
  readonly cookie: string;
  readonly key: webcrypto.CryptoKey;
  readonly token: string;
};
export type Target = Running & {
  readonly url: string;
  readonly folder: string;
  readonly documents: Readonly<Record<'short' | 'long' | 'once', DocumentId>>;
  readonly browsers: readonly Browser[];
};

/** A browser of a person, that has proven their address. */
export async function browserOf(
  { deps, clock }: Product,
  address: string,
  token: string,
): Promise<Browser> {
  const pair = await webcrypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, false, [
    'sign',
    'verify',
  ]);
  const { x = '', y = '' } = await webcrypto.subtle.exportKey('jwk', pair.publicKey);
  const recipient = await findRecipientByAddress(deps.db.read, address);
  const { deviceToken } = await deps.db.write((tx) =>
    makeDevice(
      deps,
      tx,
      {
        address,
        recipient: recipient?.id ?? null,
        agent: 'attack',
        kept: true,
        publicKey: { kty: 'EC', crv: 'P-256', x, y },
      },
      clock.now(),
    ),
  );
  return {
    address,
    network: `203.0.113.${String(1 + (Number(/\d+/.exec(address)?.[0] ?? 0) % 250))}`,
    cookie: `embargo-device=${deviceToken}`,
    key: pair.privateKey,
    token,
  };
}

async function untilUp(child: ChildProcess, url: string): Promise<void> {
  for (let waited = 0; waited < 60_000; waited += 100) {
    if (child.exitCode !== null) break;
    if ((await fetch(`${url}/healthz`).catch(() => null)) !== null) return;
    await new Promise((resolve) => {
      setTimeout(resolve, 100);
    });
  }
  throw new Error('The server did not come up.');
}

/** Prepares a product with people who read, and serves it. */
export async function startTarget(
  people: number,
  environment: Readonly<Record<string, string>> = {},
): Promise<Target> {
  if (!existsSync('build/server.mjs'))
    throw new Error('Nothing has been built: run `npm run build` first.');
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-attack-'));
  const product = await startProduct(folder);
  product.clock.set(Date.now() - 60_000);
  const addresses = Array.from({ length: people }, (_, i) => `reader.${String(i)}@yard.example`);
  const documents = {
    short: await protect(product, await drawing(40), 'Short'),
    long: await protect(product, await drawing(500), 'Long'),
    once: await protect(product, await drawing(1), 'Once'),
  };
  const terms: Partial<DispatchInput['terms']> = {
    rights: ['read', 'copy', 'print', 'keep'],
    until: Date.now() + 30 * 86_400_000,
  };
  const sent = await dispatch(product, [documents.short, documents.long], addresses, terms);
  const once = await dispatch(product, [documents.once], addresses.slice(0, 1), {
    rights: ['read'],
    until: Date.now() + 30 * 86_400_000,
    conditions: { opens: 1 },
  });
  const browsers: Browser[] = [];
  for (const address of addresses)
    browsers.push(await browserOf(product, address, sent.tokenOf(address)));
  // The first person has other browsers, for races between them.
  for (let i = 0; i < 5; i++)
    browsers.push(await browserOf(product, addresses[0] ?? '', once.tokenOf(addresses[0] ?? '')));
  await product.container.close();
  const port = await freePort();
  const url = `http://localhost:${String(port)}`;
  const child = spawn(process.execPath, [...SERVER.flags, 'build/server.mjs'], {
    env: {
      PATH: process.env['PATH'],
      NODE_ENV: 'production',
      ...SERVER.environment,
      PORT: String(port),
      PUBLIC_URL: url,
      DATA_DIR: folder,
      LOG_LEVEL: 'error',
      TRUSTED_PROXIES: '127.0.0.0/8, ::1',
      ...environment,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  await untilUp(child, url);
  return {
    url,
    folder,
    documents,
    browsers,
    ...running(child, folder),
  };
}

/** The headers of a request as the reader's page makes it, signed by its browser. */
export async function signedHeaders(
  { url }: Pick<Target, 'url'>,
  { network, cookie, key }: Browser,
  method: 'GET' | 'POST',
  at: string,
  text = '',
): Promise<Record<string, string>> {
  const [time, nonce] = [String(Date.now()), randomBytes(18).toString('base64url')];
  const statement = [
    `${method} ${at}`,
    time,
    nonce,
    createHash('sha256').update(text).digest('base64url'),
  ].join('\n');
  const signature = await webcrypto.subtle.sign(
    { name: 'ECDSA', hash: 'SHA-256' },
    key,
    Buffer.from(statement),
  );
  return {
    origin: url,
    cookie,
    'x-forwarded-for': network,
    'device-proof': `${time} ${nonce} ${Buffer.from(signature).toString('base64url')}`,
  };
}

/** A request as the reader's page makes it, signed by its browser. */
export async function signed(
  target: Pick<Target, 'url'>,
  browser: Browser,
  method: 'GET' | 'POST',
  at: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<Response> {
  const text = body === undefined ? '' : JSON.stringify(body);
  const headers = await signedHeaders(target, browser, method, at, text);
  return fetch(target.url + at, {
    method,
    ...(signal === undefined ? {} : { signal }),
    ...(body === undefined ? {} : { body: text }),
    headers: body === undefined ? headers : { ...headers, 'content-type': 'application/json' },
  });
}

/** Opens a document. @returns the licence's id, or why not */
export async function open(
  target: Target,
  browser: Browser,
  document: DocumentId,
): Promise<{ readonly licence: string | null; readonly status: number }> {
  const response = await signed(target, browser, 'POST', '/api/v1/reader/open', {
    token: browser.token,
    document,
  });
  const answer = (await response.json()) as { readonly licence?: string };
  return { licence: answer.licence ?? null, status: response.status };
}
