// A protected file read on the reader's own machine in Debian's Firefox, driven over WebDriver BiDi:
// with a connection, and with the service gone.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { launch, type Browser, type Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { HOUR, MINUTE, SECOND } from '@/core/base/time';

const PORT = '4191';
const URL_HERE = `http://localhost:${PORT}`;
const folder = mkdtempSync(path.join(tmpdir(), 'embargo-firefox-'));
const address = 'tove.lind@brackwater.example';

let server: ChildProcess;
let browser: Browser;

async function until<T>(what: () => Promise<T | null>, within = 30 * SECOND): Promise<T> {
  for (const ends = Date.now() + within; Date.now() < ends;) {
    const found = await what().catch(() => null);
    if (found !== null) return found;
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  throw new Error(`Not within ${String(within / SECOND)} s: ${what.toString()}`);
}

beforeAll(async () => {
  server = spawn(process.execPath, ['scripts/demo.mjs'], {
    // A group of its own, so that all of it can be ended.
    detached: true,
    stdio: 'ignore',
    env: {
      ...process.env,
      PORT,
      PUBLIC_URL: URL_HERE,
      DATA_DIR: path.join(folder, 'data'),
      LOG_LEVEL: 'silent',
    },
  });
  await until(async () => ((await fetch(`${URL_HERE}/healthz`)).ok ? true : null), 5 * MINUTE);
  browser = await launch({
    browser: 'firefox',
    executablePath: '/usr/bin/firefox-esr',
    headless: true,
  });
}, 6 * MINUTE);

function stopServer(): void {
  if (server.pid === undefined || server.exitCode !== null) return;
  try {
    process.kill(-server.pid, 'SIGKILL');
  } catch {
    // It is gone already.
  }
}

afterAll(async () => {
  await browser.close();
  stopServer();
  rmSync(folder, { recursive: true, force: true });
});

async function signIn(): Promise<Page> {
  const page = await browser.newPage();
  await page.goto(`${URL_HERE}/sign-in`);
  await page.waitForSelector('html[data-awake]');
  await page.type('input[type=password]', 'harbour-lights-412');
  await page.click('button[type=submit]');
  await page.waitForFunction(() => location.pathname === '/today');
  return page;
}

/** What lies in a mailbox of the demo: subject and id, the newest first. */
function letters(staff: Page): Promise<{ readonly id: string; readonly subject: string }[]> {
  return staff.evaluate(async (to) => {
    const answer = await fetch(`/mailroom?address=${encodeURIComponent(to)}`);
    const found = (await answer.text()).matchAll(
      /href="[^"]*[?&](?:amp;)?message=(msg_\w+)[^"]*">([^<]*)</g,
    );
    return [...found].map(([, id = '', subject = '']) => ({ id, subject }));
  }, address);
}

/** Sends a document that may be read without a connection, and takes its protected file from the mail. */
async function takeFile(staff: Page): Promise<string> {
  const status = await staff.evaluate(
    async (recipient, offline, end) => {
      const found = await fetch('/api/v1/documents?q=Weight%20list&own=true');
      const { rows } = (await found.json()) as {
        readonly rows: readonly { readonly id: string }[];
      };
      const terms = {
        rights: ['read'],
        from: null,
        until: end,
        prints: null,
        conditions: { offline },
      };
      const sent = await fetch('/api/v1/dispatches', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          documents: [rows[0]?.id],
          recipients: [{ address: recipient, name: 'Tove Lind', organisation: '' }],
          terms,
          subject: 'For the train',
          note: '',
          watermark: [],
          delivery: 'mail',
          form: 'both',
        }),
      });
      return sent.status;
    },
    address,
    5 * HOUR,
    Date.now() + 400 * HOUR,
  );
  expect(status).toBe(200);
  const letter = await until(
    async () =>
      (await letters(staff)).find(({ subject }) => subject.includes('For the train')) ?? null,
  );
  const bytes = await staff.evaluate(
    async (to, id) => {
      const shown = await fetch(`/mailroom?address=${encodeURIComponent(to)}&message=${id}`);
      const page = new DOMParser().parseFromString(await shown.text(), 'text/html');
      const link = [...page.querySelectorAll('a')].find((a) => a.textContent.endsWith('.pdf'));
      const file = await (await fetch(link?.getAttribute('href') ?? '')).arrayBuffer();
      return [...new Uint8Array(file)];
    },
    address,
    letter.id,
  );
  const file = path.join(folder, 'train.pdf');
  writeFileSync(file, Uint8Array.from(bytes));
  return file;
}

async function pick(page: Page, file: string): Promise<void> {
  const input = await page.waitForSelector('input[type=file]');
  await (input as unknown as { uploadFile: (...files: string[]) => Promise<void> }).uploadFile(
    file,
  );
}

/** The width in px of the first page, once it is drawn. */
function firstPage(page: Page): Promise<number> {
  return until(() =>
    page.evaluate(() => {
      const width = document.querySelector<HTMLImageElement>('.page img')?.naturalWidth ?? 0;
      return width > 0 ? width : null;
    }),
  );
}

function press(page: Page, label: string): Promise<void> {
  return page.locator(`::-p-aria(${label})`).click();
}

test(
  'is drawn there, and again with the service gone',
  async () => {
    const staff = await signIn();
    const file = await takeFile(staff);
    const reader = await (await browser.createBrowserContext()).newPage();
    await reader.goto(`${URL_HERE}/r`);
    await reader.waitForSelector('html[data-awake]');
    await pick(reader, file);
    await reader.waitForSelector('input[type=email]');
    await reader.type('input[type=email]', address);
    await press(reader, 'Email me a code');
    const code = await until(
      async () =>
        (await letters(staff)).find(({ subject }) => /^\d{3} \d{3} /.test(subject)) ?? null,
    );
    await reader.waitForSelector('input[type=radio][value=kept]');
    await reader.type('input[autocomplete=one-time-code]', code.subject.slice(0, 7));
    await reader.click('input[type=radio][value=kept]');
    await press(reader, 'Continue');
    expect(await firstPage(reader)).toBeGreaterThan(300);
    expect(await reader.evaluate(() => document.body.textContent)).toContain(
      'Read on this machine, from the file train.pdf',
    );
    await until(() =>
      reader.evaluate(async () => {
        const worker = (await navigator.serviceWorker.getRegistration('/r'))?.active;
        return worker?.state === 'activated' ? true : null;
      }),
    );

    stopServer();
    await reader.goto(`${URL_HERE}/r/sent`);
    await until(async () =>
      (await reader.evaluate(() => document.body.textContent)).includes('No connection')
        ? true
        : null,
    );
    await pick(reader, file);
    expect(await firstPage(reader)).toBeGreaterThan(300);
  },
  3 * MINUTE,
);
