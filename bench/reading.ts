// Many who read at once, and how fast details of a large drawing come.
import { randomBytes } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import http from 'node:http';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { sealedSize } from '@/core/age/chunks';
import { sealStream } from '@/core/age/stream';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { createRenderPool } from '@/server/rendering/render-pool';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import {
  open,
  signedHeaders,
  startTarget,
  type Browser,
  type Target,
} from '../tests/attack/target';
import { median, say, seconds } from './measure';
import { signIn } from './soak';

const READERS = 200;
/** Each turns a page every so often, in ms; shorter to find where it ends. */
const TURNS_EVERY = Number(process.env['TURNS_EVERY'] ?? 5_000);
const LASTS = Number(process.env['SECONDS'] ?? 40) * 1_000;
const PAGES = 40;

/** What staff look at meanwhile, and how often, in ms. */
const STAFF_PAGES = ['/today', '/documents', '/ledger'];
const STAFF_LOOKS_EVERY = 1_000;

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => {
    setTimeout(resolve, ms);
  });
}

function share(times: readonly number[], part: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0;
}

async function timed(job: () => Promise<Response>, times: number[]): Promise<boolean> {
  const began = performance.now();
  const response = await job().catch(() => null);
  if (response !== null) await response.arrayBuffer();
  times.push(performance.now() - began);
  return response?.ok === true;
}

/** As many connections as readers: each has a browser of their own. Whoever measures must not be what is slow. */
const agent = new http.Agent({ keepAlive: true, maxSockets: READERS });

/** Asks for a page and lets its bytes go by. @returns whether it came */
function turned(url: string, headers: Record<string, string>): Promise<boolean> {
  return new Promise((resolve) => {
    const request = http.get(url, { agent, headers }, (response) => {
      response.on('end', () => {
        resolve(response.statusCode === 200);
      });
      response.resume();
    });
    request.on('error', () => {
      resolve(false);
    });
  });
}

/** A page to be asked for, signed: a proof holds for two minutes, so that nothing is signed while it is measured. */
type Turn = { readonly url: string; readonly headers: Record<string, string> };

async function turnsOf(target: Target, browser: Browser, licence: string): Promise<Turn[]> {
  const turns: Turn[] = [];
  for (let page = 1; page <= LASTS / TURNS_EVERY + 1; page++) {
    const number = String(1 + (page % PAGES));
    const at = `/api/v1/reader/licences/${licence}/pages/${number}?width=1275`;
    const headers = await signedHeaders(target, browser, 'GET', at);
    turns.push({ url: target.url + at, headers });
  }
  return turns;
}

/** All readers with the document open at its first page, each with the pages they will turn to. */
async function opened(target: Target): Promise<Turn[][]> {
  const licences: { readonly browser: Browser; readonly licence: string }[] = [];
  for (const browser of target.browsers.slice(0, READERS)) {
    const { licence } = await open(target, browser, target.documents.short);
    if (licence === null) throw new Error('It did not open.');
    const first = `/api/v1/reader/licences/${licence}/pages/1?width=1275`;
    await turned(target.url + first, await signedHeaders(target, browser, 'GET', first));
    licences.push({ browser, licence });
  }
  return Promise.all(licences.map((each) => turnsOf(target, each.browser, each.licence)));
}

/** One reader from page to page, beginning anywhere within their time. */
async function reads(turns: readonly Turn[], until: number, times: number[]): Promise<number> {
  let failed = 0;
  await pause(Math.random() * TURNS_EVERY);
  for (const { url, headers } of turns) {
    if (Date.now() >= until) break;
    const due = Date.now() + TURNS_EVERY;
    const began = performance.now();
    if (!(await turned(url, headers))) failed++;
    times.push(performance.now() - began);
    await pause(Math.max(0, due - Date.now()));
  }
  return failed;
}

/** 200 readers of one document, and staff meanwhile. */
export async function crowd(): Promise<void> {
  const target = await startTarget(READERS);
  try {
    const staff = await signIn(target);
    const readers = await opened(target);
    // What a service loads when it is first asked for something is not what is measured.
    for (const page of STAFF_PAGES) await (await staff('GET', page)).arrayBuffer();
    const until = Date.now() + LASTS;
    const [times, staffTimes]: [number[], number[]] = [[], []];
    const staffWork = async () => {
      for (let page = 0; Date.now() < until; page++) {
        const next = pause(STAFF_LOOKS_EVERY);
        await timed(() => staff('GET', STAFF_PAGES[page % STAFF_PAGES.length] ?? ''), staffTimes);
        await next;
      }
    };
    const [failed] = await Promise.all([
      Promise.all(readers.map((each) => reads(each, until, times))),
      staffWork(),
    ]);
    const lost = failed.reduce((sum, each) => sum + each, 0);
    say(
      `${String(READERS)} readers, a page every ${String(TURNS_EVERY / 1_000)} s`,
      `p95 ${share(times, 0.95).toFixed(0)} ms, longest ${share(times, 1).toFixed(0)} ms of ` +
        `${String(times.length)} pages, ${String(lost)} failed`,
      'p95 1,500 ms, longest 5,000 ms, none failed',
    );
    say(
      'staff pages meanwhile',
      `p95 ${share(staffTimes, 0.95).toFixed(0)} ms`,
      'at most 1,000 ms',
    );
  } finally {
    await target.stop();
  }
}

/** A drawing of A0 with lines enough to be one. */
async function largeDrawing(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const page = pdf.addPage([3370, 2384]);
  for (let i = 0; i < 4_000; i++) {
    const [x, y] = [(i * 37) % 3370, (i * 91) % 2384];
    page.drawLine({ start: { x, y }, end: { x: x + 60, y: y + ((i * 13) % 50) }, thickness: 0.4 });
    if (i % 10 === 0) page.drawText(`FR ${String(i)}`, { x, y, size: 6, font });
  }
  return pdf.save();
}

/** Parts of an A0 drawing at four times its size. */
export async function details(folder: string): Promise<void> {
  const bytes = await largeDrawing();
  const file = `${folder}/a0.age`;
  const key = new Uint8Array(randomBytes(32));
  const sealed: Uint8Array[] = [];
  for await (const piece of sealStream(
    nodeChunkCipher(key),
    (async function* () {
      yield await Promise.resolve(bytes);
    })(),
  ))
    sealed.push(piece);
  await writeFile(file, Buffer.concat(sealed));
  const source = {
    place: { in: 'file', path: file },
    start: 0,
    sealedBytes: sealedSize(bytes.length),
    key,
  } as const;
  const pool = createRenderPool('build/workers', 1);
  const times: number[] = [];
  for (let i = 0; i < 24; i++) {
    const part = { column: 3 + (i % 6), row: 2 + Math.floor(i / 6) };
    times.push(
      await seconds(() =>
        pool.run(
          { kind: 'page', source, page: 1, width: 16_000, part, watermark: DEFAULT_WATERMARK },
          { who: 'bench' },
        ),
      ),
    );
  }
  await pool.close();
  say(
    'a part of an A0 drawing at 400 %',
    `${(median(times) * 1_000).toFixed(0)} ms, slowest ${(Math.max(...times) * 1_000).toFixed(0)} ms`,
    'at most 300 ms',
  );
}
