import { mkdtempSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { dispatch, drawing, newestCode, protect, startProduct } from '../tests/support/product';
import { startBuilt, until } from './built-server';
import { median, say } from './measure';

const ADDRESS = 'sanna.vik@brackwater.example';
const ROUNDS = 7;

/** From the click on the link to the first page in view, in ms. */
async function click(page: Page, link: string): Promise<number> {
  const began = performance.now();
  await page.goto(link);
  await page.locator('[data-page="1"] img').first().waitFor();
  return performance.now() - began;
}

/** What somebody waits for who follows the link of a mail: the first time, and on a device that is known. */
export async function arriving(folder: string): Promise<void> {
  const product = await startProduct(mkdtempSync(path.join(folder, 'arrival-')));
  product.clock.set(Date.now());
  const document = await protect(product, await drawing(40));
  const token = (await dispatch(product, [document], [ADDRESS])).tokenOf(ADDRESS);
  const { url, kill } = await startBuilt(product.folder);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--headless', '--no-sandbox', '--disable-gpu'],
  });
  try {
    await until(`${url}/healthz`);
    const link = `${url}/r/${token}`;
    const page = await browser.newPage();
    await page.goto(link);
    await page.locator('html[data-awake]').waitFor();
    await page.locator('input[type=email]').fill(ADDRESS);
    await page.locator('form button[type=submit]').click();
    const code = page.locator('input[autocomplete=one-time-code]');
    await code.waitFor();
    await code.fill(await mailed(product));
    await page.locator('input[type=radio][value=kept]').check();
    const entered = performance.now();
    await page.locator('form button[type=submit]').click();
    await page.locator('[data-page="1"] img').first().waitFor();
    const first = performance.now() - entered;
    const known: number[] = [];
    for (let i = 0; i < ROUNDS; i++) known.push(await click(page, link));
    say('arrival: code entered, first page', `${first.toFixed(0)} ms`, 'one code, two clicks');
    say('arrival: click, known device, first page', `${median(known).toFixed(0)} ms`, '2,000 ms');
  } finally {
    await browser.close();
    await kill();
    await product.container.close();
  }
}

async function mailed(product: Parameters<typeof newestCode>[0]): Promise<string> {
  for (;;) {
    const code = await newestCode(product, ADDRESS);
    if (code !== '') return code;
    await new Promise((resolve) => {
      setTimeout(resolve, 100);
    });
  }
}
