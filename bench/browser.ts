import { createServer } from 'node:http';
import { build } from 'esbuild';
import { chromium } from '@playwright/test';
import { say } from './measure';

type Rates = { readonly seals: number; readonly opens: number };

/** The browser's chunk cipher in Chromium, in one worker and in two at once, in MB/s. */
export async function browserCipher(): Promise<void> {
  const { outputFiles } = await build({
    entryPoints: ['bench/browser-worker.ts'],
    bundle: true,
    format: 'esm',
    platform: 'browser',
    write: false,
    logLevel: 'silent',
    tsconfig: 'tsconfig.json',
    external: ['crypto', 'path', 'fs'],
  });
  const script = outputFiles[0]?.text ?? '';
  const server = createServer((request, response) => {
    const worker = request.url === '/worker.js';
    response.setHeader('content-type', worker ? 'text/javascript' : 'text/html');
    response.end(worker ? script : '<!doctype html><title>bench</title>');
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const address = server.address();
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
    ],
  });
  try {
    const page = await browser.newPage();
    await page.goto(`http://127.0.0.1:${String(typeof address === 'object' ? address?.port : 0)}/`);
    for (const workers of [1, 2]) {
      const rates = await page.evaluate(
        (count) =>
          Promise.all(
            Array.from(
              { length: count },
              () =>
                new Promise<Rates>((resolve, reject) => {
                  const worker = new Worker('/worker.js', { type: 'module' });
                  worker.onmessage = ({ data }) => {
                    resolve(data as Rates);
                  };
                  worker.onerror = ({ message }) => {
                    reject(new Error(message));
                  };
                }),
            ),
          ),
        workers,
      );
      const sum = (of: (rate: Rates) => number): string =>
        rates.reduce((total, rate) => total + of(rate), 0).toFixed(0);
      say(
        `browser cipher, ${String(workers)} ${workers === 1 ? 'worker' : 'workers'}`,
        `seals ${sum(({ seals }) => seals)}, opens ${sum(({ opens }) => opens)} MB/s`,
        workers === 1 ? '100' : 'more',
      );
    }
  } finally {
    await browser.close();
    server.close();
  }
}
