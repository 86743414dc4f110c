import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import { createRequire } from 'node:module';
import { build } from 'esbuild';
import { chromium } from '@playwright/test';
import { CHUNK, PAYLOAD_NONCE, chunkCount, fileSize } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { embargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey } from '@/core/age/recipients';
import { writeProtected } from '@/core/own-machine/write-protected';
import { envelope } from '@/core/wrapper/write';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { coverFacts, covers } from '../tests/support/covers';
import { realDocument } from '../tests/support/real-documents';
import { largeDocument } from './files';
import { say } from './measure';

const VERSION = 'ver_00000000000000000001';
const REAL = 'usage';

type Result = {
  readonly loading: number;
  readonly first: number;
  readonly drawn: number;
  readonly marked: number;
  readonly opened: number;
};

/** A protected file as a browser writes it. */
async function protectedFile(plain: Uint8Array) {
  const { fileKey, stanzas } = await newFileKey([]);
  const header = encodeHeader(
    [embargoStanza(VERSION, 'https://embargo.example'), ...stanzas],
    fileKey,
  );
  const cover = await covers.draw(coverFacts, new Uint8Array(16), 'x.age');
  const pieces: Uint8Array[] = [];
  writeProtected(
    { size: plain.length, readAt: (at, length) => plain.subarray(at, at + length) },
    {
      header,
      fileKey,
      nonce: new Uint8Array(randomBytes(PAYLOAD_NONCE)),
      envelope: envelope(cover, fileSize(header.length, plain.length), 'x.age'),
      cipher: nodeChunkCipher,
    },
    (piece) => pieces.push(piece),
    () => undefined,
  );
  return { file: Buffer.concat(pieces), fileKey };
}

/** Opening a protected file in Chromium, and what a marked page costs there beside the bare one. */
export async function ownMachine(): Promise<void> {
  const { outputFiles } = await build({
    entryPoints: ['bench/own-machine-worker.ts'],
    bundle: true,
    minify: true,
    format: 'esm',
    platform: 'browser',
    write: false,
    logLevel: 'silent',
    tsconfig: 'tsconfig.json',
  });
  const large = await largeDocument(false);
  const real = new Uint8Array(realDocument(REAL));
  const made = { large: await protectedFile(large), real: await protectedFile(real) };
  const wasm = createRequire(import.meta.url).resolve('@hyzyla/pdfium/pdfium.wasm');
  const served: Readonly<Record<string, readonly [string, Uint8Array | string]>> = {
    '/': ['text/html', '<!doctype html><title>bench</title>'],
    '/worker.js': ['text/javascript', outputFiles[0]?.text ?? ''],
    '/pdfium.wasm': ['application/wasm', await readFile(wasm)],
    '/large': ['application/octet-stream', made.large.file],
    '/large.plain': ['application/octet-stream', large],
    '/real': ['application/octet-stream', made.real.file],
    '/real.plain': ['application/octet-stream', real],
  };
  const server = createServer((request, response) => {
    const [type, body] = served[request.url ?? ''] ?? ['text/plain', ''];
    response.setHeader('content-type', type);
    response.end(body);
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const address = server.address();
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--headless', '--no-sandbox', '--disable-gpu'],
  });
  try {
    const page = await browser.newPage();
    await page.goto(`http://127.0.0.1:${String(typeof address === 'object' ? address?.port : 0)}/`);
    const run = (name: 'large' | 'real'): Promise<Result> =>
      page.evaluate(
        async ({ at, key, version }) => {
          // No function has a name here: the loader would name it by one that the page does not have.
          const file = await (await fetch(`/${at}`)).blob();
          const plain = await (await fetch(`/${at}.plain`)).blob();
          const code = await (await fetch('/pdfium.wasm')).arrayBuffer();
          return new Promise<Result>((resolve, reject) => {
            const worker = new Worker('/worker.js', { type: 'module' });
            worker.onmessage = ({ data }: MessageEvent<Result | { readonly error: string }>) => {
              if ('error' in data) reject(new Error(data.error));
              else resolve(data);
            };
            worker.postMessage({
              file,
              plain,
              version,
              fileKey: new Uint8Array(key),
              wasm: code,
            });
          });
        },
        { at: name, key: [...made[name].fileKey], version: VERSION },
      );
    const of = await run('large');
    say(
      `first page of ${(large.length / 1e6).toFixed(0)} MB in the browser`,
      `${of.first.toFixed(0)} ms, after ${of.loading.toFixed(0)} ms of loading`,
      '2,000 ms',
    );
    say(
      'of it decrypted for 13 pages',
      `${String(of.opened)} of ${String(chunkCount(large.length))} chunks of ${String(CHUNK / 1024)} KiB`,
      'what they touch',
    );
    const page2 = await run('real');
    say(
      'marked page in the browser, × bare render',
      `${(page2.marked / page2.drawn).toFixed(2)} (${page2.marked.toFixed(0)} / ${page2.drawn.toFixed(0)} ms)`,
      '1.5',
    );
  } finally {
    await browser.close();
    server.close();
  }
}
