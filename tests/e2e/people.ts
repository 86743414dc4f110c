// What the people of these tests do, in the browser.
import { expect, type Browser, type Locator, type Page } from '@playwright/test';
import { violationsOn, type Looking } from './axe';

const PASSWORD = 'harbour-lights-412';

/** Goes there and waits until the page answers: a click before that is lost. */
export async function open(page: Page, address: string): Promise<void> {
  // A page that is still on its way to where a click led cuts the next one off: it is asked for again.
  await page.goto(address).catch(async (error: unknown) => {
    if (!String(error).includes('ERR_ABORTED')) throw error;
    await page.goto(address);
  });
  await page.locator('html[data-awake]').waitFor();
}

type Cookies = Awaited<ReturnType<ReturnType<Page['context']>['cookies']>>;
/** Signing in is limited: one session serves several tests. */
let session: { readonly cookies: Cookies; readonly since: number } | null = null;
/** A password counts for ten minutes where much is affected; a test that begins is done before. */
const SESSION = 6 * 60_000;

/** Signs in and goes to a page. */
export async function signIn(page: Page, address = '/today'): Promise<void> {
  if (session !== null && Date.now() - session.since < SESSION) {
    await page.context().addCookies(session.cookies);
    await open(page, address);
    return;
  }
  await open(page, '/sign-in');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/today');
  session = { cookies: await page.context().cookies(), since: Date.now() };
  if (address !== '/today') await open(page, address);
}

export async function expectNothingSerious(page: Page, looking: Looking = {}): Promise<void> {
  // A colour half way between two states is nobody's choice: what ends by itself is waited for.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((animation) => Number.isFinite(animation.effect?.getComputedTiming().endTime))
        .map((animation) => animation.finished.catch(() => null)),
    ),
  );
  // While a page fetches its data anew it is without a title for a moment: what is wrong for longer than that is wrong.
  await expect(async () => {
    const violations = await violationsOn(page, looking);
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

/** The mailroom as its page comes from the server: reading a letter takes no browser. */
async function mailroom(staff: Page, query: Record<string, string>): Promise<string> {
  const response = await staff.request.get('/mailroom', { params: query });
  return response.text();
}

type Letter = { readonly id: string; readonly subject: string };

/** What lies in a mailbox, the newest first, as staff of a demo can read it. */
async function lettersTo(staff: Page, address: string): Promise<Letter[]> {
  const html = await mailroom(staff, { address });
  const links = html.matchAll(/href="[^"]*[?&](?:amp;)?message=(msg_\w+)[^"]*">([^<]*)</g);
  return [...links].map(([, id = '', subject = '']) => ({ id, subject }));
}

async function codesTo(staff: Page, address: string): Promise<string[]> {
  const letters = await lettersTo(staff, address);
  return letters
    .filter(({ subject }) => /^\d{3} \d{3} /.test(subject))
    .map(({ subject }) => subject.slice(0, 7));
}

/** How many codes a mailbox holds, to know a new one by. */
export async function countCodes(staff: Page, address: string): Promise<number> {
  return (await codesTo(staff, address)).length;
}

/** The newest code in somebody's mailbox; one that came after `before` others. */
export async function newestCode(staff: Page, address: string, before = 0): Promise<string> {
  let codes: string[] = [];
  await expect(async () => {
    codes = await codesTo(staff, address);
    expect(codes.length).toBeGreaterThan(before);
  }).toPass({ timeout: 20_000 });
  return codes[0] ?? '';
}

/** The link in the newest letter to somebody whose subject begins or goes on so. */
export async function linkFor(staff: Page, address: string, subject: string): Promise<string> {
  let letter: Letter | undefined;
  await expect(async () => {
    letter = (await lettersTo(staff, address)).find((each) => each.subject.includes(subject));
    expect(letter).toBeDefined();
  }).toPass({ timeout: 20_000 });
  const html = await mailroom(staff, { address, message: letter?.id ?? '' });
  return /href="(https?:\/\/[^"]+)" target="_blank"/.exec(html)?.[1] ?? '';
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

/** Types into a field of a day, a time or both, as somebody would: `17 Dec 2026 09:00`. */
export async function typeInto(scope: Page | Locator, label: string, text: string): Promise<void> {
  const field = scope.getByRole('group', { name: label, exact: true });
  await field.getByRole('spinbutton').first().click();
  await field.page().keyboard.type(text);
}
