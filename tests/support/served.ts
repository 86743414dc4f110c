import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort, running, type Running } from './server-process';

/**
 * The built server as a process of its own, on an empty folder, and a client that is a browser as
 * far as it can tell.
 */
export type Served = Running & {
  readonly url: string;
  readonly folder: string;
  readonly setUpToken: string;
  readonly call: (
    method: string,
    at: string,
    body?: unknown,
    headers?: Readonly<Record<string, string>>,
  ) => Promise<Response>;
  /** Everything the process has printed. */
  readonly printed: () => string;
};

async function untilPrinted(
  child: ChildProcess,
  wanted: RegExp,
  printed: () => string,
): Promise<string> {
  for (let waited = 0; waited < 30_000; waited += 50) {
    const found = wanted.exec(printed());
    if (found !== null) return found[1] ?? '';
    if (child.exitCode !== null) break;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error(`The server did not come up:\n${printed()}`);
}

export async function startServed(
  environment: Readonly<Record<string, string>> = {},
): Promise<Served> {
  if (!existsSync('build/server.mjs'))
    throw new Error(
      'Nothing has been built: run `npx tsx scripts/build.ts` first, as `npm test` does.',
    );
  const port = await freePort();
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-served-'));
  const url = `http://localhost:${String(port)}`;
  const child = spawn(process.execPath, ['build/server.mjs'], {
    env: {
      PATH: process.env['PATH'],
      NODE_ENV: 'production',
      PORT: String(port),
      DATA_DIR: folder,
      LOG_LEVEL: 'info',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (text: Buffer) => {
      said += text.toString();
    });
  const printed = (): string => said;
  const setUpToken = await untilPrinted(child, /Set-up token: (\S+)/, printed);
  const cookies = new Map<string, string>();
  return {
    url,
    folder,
    setUpToken,
    printed,
    call: async (method, at, body, headers = {}) => {
      const raw = body instanceof Uint8Array || body instanceof ReadableStream;
      const response = await fetch(url + at, {
        method,
        redirect: 'manual',
        ...(body === undefined
          ? {}
          : {
              body: raw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
              duplex: 'half',
            }),
        headers: {
          origin: url,
          cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
          ...(body === undefined
            ? {}
            : { 'content-type': raw ? 'application/octet-stream' : 'application/json' }),
          ...headers,
        },
      });
      for (const cookie of response.headers.getSetCookie()) {
        const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(cookie) ?? [];
        cookies.set(name, value);
      }
      return response;
    },
    ...running(child, folder),
  };
}
