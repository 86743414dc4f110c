// Every screen: nothing serious for those who need assistance, in both schemes; and the keyboard alone.
import { expect, type Page, type Request } from '@playwright/test';
import { test } from './test';
import { expectNothingSerious, open, signIn } from './people';

const SCREENS = [
  '/today',
  '/dispatches',
  '/compose',
  '/documents',
  '/people',
  '/ledger',
  '/terms',
  '/settings',
  '/settings/keys',
  '/you',
  '/mailroom?address=solheim%40meridian.example',
  '/find?q=hull',
  '/documents?q=nothing-of-this-name',
  '/people?q=nobody-of-this-name',
  '/ledger?organisation=Nobody',
];

async function everyScreen(
  page: Page,
  screens = SCREENS,
  rules?: readonly string[],
): Promise<void> {
  const looking = { everyRow: true, ...(rules === undefined ? {} : { rules }) };
  await signIn(page);
  for (const screen of screens) {
    await open(page, screen);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    await expectNothingSerious(page, looking);
  }
  await open(page, '/people');
  await page.getByRole('table', { name: 'People' }).getByRole('link').first().click();
  await expect(page.getByRole('region', { name: 'Details' })).toBeVisible();
  await expectNothingSerious(page, looking);
  await open(page, '/documents');
  await page.getByRole('table', { name: 'Documents' }).getByRole('link').first().click();
  await expect(page.getByRole('region', { name: 'Versions' })).toBeVisible();
  await expectNothingSerious(page, looking);
}

test('every screen in the light scheme', async ({ page }) => {
  await everyScreen(page);
});

test.describe('dark', () => {
  test.use({ colorScheme: 'dark' });
  // What a scheme can spoil is contrast, and these use every colour there is; all else is the same page.
  test('the screens of a day in the dark scheme', async ({ page }) => {
    await everyScreen(
      page,
      ['/today', '/compose', '/ledger', '/settings', '/settings/keys', '/terms'],
      ['color-contrast'],
    );
  });
});

test('a list or a filter that leads somewhere is not fetched before it is followed', async ({
  page,
}) => {
  await signIn(page);
  for (const list of ['/today', '/ledger', '/ledger/opens', '/mailroom', '/dispatches']) {
    const ahead: string[] = [];
    const note = (request: Request) => {
      if (request.headers()['next-router-prefetch'] === undefined) return;
      const address = new URL(request.url());
      address.searchParams.delete('_rsc');
      ahead.push(address.pathname + address.search);
    };
    // What the page before fetches late would be taken for this one's.
    await page.goto('about:blank');
    page.on('request', note);
    await open(page, list);
    await page.waitForLoadState('networkidle');
    page.off('request', note);
    const links = await page
      .locator('main :is(table a, a[class*=tally], a.MuiChip-root)')
      .evaluateAll((all) => all.map((link) => link.getAttribute('href') ?? ''));
    expect(links.length, list).toBeGreaterThan(20);
    expect(
      ahead.filter((address) => links.includes(address)),
      list,
    ).toEqual([]);
  }
});

test('the keys are listed, search is a key away, and a list is walked without a mouse', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('/');
  await page.keyboard.press('Escape');
  await open(page, '/documents');
  // Typed again where the page was not yet awake.
  await expect(async () => {
    await page.getByLabel('Search').fill('');
    await page.keyboard.type('plan');
    await expect(page).toHaveURL(/q=plan/, { timeout: 2_000 });
  }).toPass();
  await expect(page.locator('table.list tbody tr').first()).toContainText(/plan/i);
  await page.getByRole('table', { name: 'Documents' }).getByRole('link').first().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Dispatches' })).toBeVisible();
});
