import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { mkdtempSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { EMPTY_SHEET, rowOf } from '@/core/compose/sheet';
import { dispatchInput } from '@/contracts/dispatch';
import { keepDraftInput } from '@/contracts/draft';
import { keepDraft } from '@/server/services/dispatching/keep-draft';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { listPeople } from '@/server/services/people/manage-people';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { drawing, protect, startProduct, START, type Product } from '../tests/support/product';
import { startBuilt, until } from './built-server';
import { median, say, seconds } from './measure';

const RECIPIENTS = 500;
const EDITS = 40;

const addressOf = (i: number): string => `person${String(i)}@yard${String(i % 12)}.example`;

async function documents(product: Product, n: number): Promise<DocumentId[]> {
  const bytes = await drawing(1);
  const ids: DocumentId[] = [];
  for (let i = 0; i < n; i++) ids.push(await protect(product, bytes, `Paper ${String(i + 1)}`));
  return ids;
}

/** A dispatch of ten documents to five hundred people, until the last message lies in the mailroom. */
export async function dispatching(folder: string): Promise<void> {
  const product = await startProduct(mkdtempSync(path.join(folder, 'dispatch-')));
  const { deps, ida } = product;
  const input = dispatchInput.parse({
    documents: await documents(product, 10),
    recipients: Array.from({ length: RECIPIENTS }, (_each, i) => ({ address: addressOf(i) })),
    terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null },
    subject: 'To many',
    note: '',
    watermark: [],
    delivery: 'mail',
  });
  const asked = () => seconds(() => listPeople(deps, ida, { q: '' }));
  const alone = await asked();
  let [longest, over] = [0, false];
  const others = async (): Promise<void> => {
    while (!over) {
      longest = Math.max(longest, await asked());
      await new Promise((resolve) => {
        setTimeout(resolve, 20);
      });
    }
  };
  const beside = others();
  const given = await seconds(() => sendDocuments(deps, ida, input));
  const mailed = await seconds(() => deliverMail(deps));
  over = true;
  await beside;
  say(
    `dispatch of 10 documents to ${String(RECIPIENTS)} people`,
    `given ${given.toFixed(1)} s, mailed ${mailed.toFixed(1)} s`,
    'under 20 s together',
  );
  say(
    'the longest that another question waited',
    `${(longest * 1000).toFixed(0)} ms (alone ${(alone * 1000).toFixed(0)} ms)`,
    'the page still answers',
  );
  await product.close();
}

/** How long until what a key did is painted, in ms. */
function paintOf(page: Page, key: string): Promise<number> {
  return page.evaluate(
    (pressed) =>
      new Promise<number>((resolve) => {
        const grid = document.querySelector('.grid-frame');
        const began = performance.now();
        grid?.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true }));
        requestAnimationFrame(() => {
          setTimeout(() => {
            resolve(performance.now() - began);
          });
        });
      }),
    key,
  );
}

/** From going to a page until something is painted there, in ms. */
async function shown(page: Page, url: string, selector: string): Promise<number> {
  const began = performance.now();
  await page.goto(url, { waitUntil: 'commit' });
  await page.locator(selector).first().waitFor();
  return performance.now() - began;
}

/** A draft of five hundred people and fifty documents in the browser, beside a page with nothing on it. */
export async function composing(folder: string): Promise<void> {
  const product = await startProduct(mkdtempSync(path.join(folder, 'compose-')));
  const body = {
    sheet: {
      ...EMPTY_SHEET,
      documents: await documents(product, 50),
      rows: Array.from({ length: RECIPIENTS }, (_each, i) => ({
        ...rowOf(addressOf(i), 'person'),
        own: i % 3 === 0 ? { rights: { print: true }, prints: 2 } : {},
      })),
    },
    subject: 'Large',
    note: '',
    watermark: DEFAULT_WATERMARK,
    way: { form: 'link', delivery: 'mail', titleOnCover: false, noteInMail: true, reason: '' },
    waved: [],
  };
  const { id } = await keepDraft(
    product.deps,
    product.ida,
    keepDraftInput.parse({ id: null, body }),
  );
  await product.container.close();
  const server = await startBuilt(product.folder);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    await until(`${server.url}/sign-in`);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${server.url}/sign-in`);
    await page.locator('html[data-awake]').waitFor();
    await page.getByLabel('Email address').fill(product.ida.email);
    await page.getByLabel('Password').fill('a long enough password');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL('**/today');
    const empty: number[] = [];
    const large: number[] = [];
    for (let i = 0; i < 5; i++) {
      empty.push(await shown(page, `${server.url}/compose`, '.grid-row'));
      large.push(await shown(page, `${server.url}/compose?draft=${id}`, '.grid-row:nth-child(5)'));
    }
    say(
      `a draft of ${String(RECIPIENTS)} × 50 is painted`,
      `${median(large).toFixed(0)} ms (an empty one ${median(empty).toFixed(0)} ms)`,
      '1,500 ms',
    );
    await page.locator('html[data-awake]').waitFor();
    await page.waitForTimeout(1_500);
    await page.getByRole('grid').focus();
    const nothing: number[] = [];
    for (let i = 0; i < EDITS; i++) nothing.push(await paintOf(page, 'Shift'));
    const edits: Record<string, number[]> = { common: [], row: [], move: [] };
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
    for (let i = 0; i < EDITS; i++) edits['common']?.push(await paintOf(page, ' '));
    for (let i = 0; i < EDITS; i++) {
      edits['move']?.push(await paintOf(page, 'ArrowDown'));
      edits['row']?.push(await paintOf(page, ' '));
    }
    for (const [what, times] of Object.entries(edits)) {
      const sorted = [...times].sort((a, b) => a - b);
      say(
        `an edit is painted: ${what}`,
        `${median(times).toFixed(0)} ms, 95 % in ${(sorted[Math.floor(EDITS * 0.95)] ?? 0).toFixed(0)} ms ` +
          `(nothing ${median(nothing).toFixed(0)} ms)`,
        '100 ms',
      );
    }
  } finally {
    await browser.close();
    await server.kill();
  }
}
