// What the people of these tests do, in the browser.
import AxeBuilder from '@axe-core/playwright';
import { expect, type Browser, type Page } from '@playwright/test';

const PASSWORD = 'harbour-lights-412';

/** Goes there and waits until the page answers: a click before that is lost. */
export async function open(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await page.locator('html[data-awake]').waitFor();
}

type Cookies = Awaited<ReturnType<ReturnType<Page['context']>['cookies']>>;
/** The session of the first sign-in: signing in is limited, and one session serves them all. */
let session: Cookies = [];

export async function signIn(page: Page): Promise<void> {
  if (session.length > 0) {
    await page.context().addCookies(session);
    await open(page, '/today');
    return;
  }
  await open(page, '/sign-in');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/today');
  session = await page.context().cookies();
}

/** @param rules only these, where not all are asked for again */
export async function expectNothingSerious(page: Page, rules?: readonly string[]): Promise<void> {
  // A colour half way between two states is nobody's choice: what ends by itself is waited for.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((animation) => Number.isFinite(animation.effect?.getComputedTiming().endTime))
        .map((animation) => animation.finished.catch(() => null)),
    ),
  );
  const axe = () =>
    new AxeBuilder({ page }).options({
      resultTypes: ['violations'],
      ...(rules === undefined ? {} : { runOnly: { type: 'rule', values: [...rules] } }),
    });
  // While a page fetches its data anew it is without a title for a moment: what is wrong for longer than that is wrong.
  await expect(async () => {
    const { violations } = await axe().analyze();
    expect(
      violations
        .filter(({ impact }) => impact === 'serious' || impact === 'critical')
        .map(
          ({ id, nodes }) =>
            `${id}: ${nodes
              .map((node) => node.html)
              .slice(0, 3)
              .join(' ')}`,
        ),
    ).toEqual([]);
  }).toPass({ timeout: 15_000 });
}

const codeMails = (staff: Page) => staff.locator('table.list a', { hasText: 'is your code' });

/** How many codes a mailbox holds, to know a new one by. */
export async function countCodes(staff: Page, address: string): Promise<number> {
  await open(staff, `/mailroom?address=${encodeURIComponent(address)}`);
  return codeMails(staff).count();
}

/** The newest code in somebody's mailbox, as staff of a demo can read it; one that came after `before` others. */
export async function newestCode(staff: Page, address: string, before = 0): Promise<string> {
  await expect(async () => {
    expect(await countCodes(staff, address)).toBeGreaterThan(before);
  }).toPass({ timeout: 15_000 });
  return (await codeMails(staff).first().innerText()).slice(0, 7);
}

export async function linkFor(staff: Page, address: string, subject: string): Promise<string> {
  const message = staff.locator('table.list a', { hasText: subject }).first();
  await expect(async () => {
    await open(staff, `/mailroom?address=${encodeURIComponent(address)}`);
    await expect(message).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 15_000 });
  await message.click();
  return (await staff.locator('.mail a').first().getAttribute('href')) ?? '';
}

export async function prove(
  browser: Browser,
  staff: Page,
  link: string,
  address: string,
  viewport = { width: 1280, height: 800 },
): Promise<Page> {
  const context = await browser.newContext({ viewport });
  const page = await context.newPage();
  const before = await countCodes(staff, address);
  await open(page, link);
  await page.getByLabel('Your email address').fill(address);
  await page.getByRole('button', { name: 'Email me a code' }).click();
  await expect(page.getByRole('heading', { name: 'Enter the code' })).toBeVisible();
  await page.getByLabel('Code').fill(await newestCode(staff, address, before));
  await page.getByRole('button', { name: 'Continue' }).click();
  return page;
}
