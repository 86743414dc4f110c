// The record on the screen: found, narrowed, folded, acted upon; and what is left of a revocation.
import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, giveRights } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn, typeInto } from './people';

test('an entry is found by a part of a name, narrowed with and without, and folds out to its pages', async ({
  page,
}) => {
  await signIn(page, '/ledger');
  const box = page.getByRole('combobox', { name: 'Add a filter' });
  await box.fill('mira');
  await page.getByRole('option', { name: /^Mira Kolbe mira\.kolbe/ }).click();
  await expect(
    page.getByRole('link', { name: 'Remove the filter person: Mira Kolbe' }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Exclude sent' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Remove the filter not what: sent' })).toBeVisible();
  const entries = page.getByRole('table');
  await expect(entries.getByRole('row', { name: /delivered mail/ })).toHaveCount(0);

  // Narrowed by nothing that tells a page from its open, pages are told with it.
  await page.getByRole('link', { name: 'Remove the filter not what: sent' }).click();
  await expect(entries.getByRole('row', { name: /was shown a page/ })).toHaveCount(0);
  await entries
    .getByRole('button', { name: /^\d+ within$/ })
    .first()
    .click();
  await expect(entries.getByRole('row', { name: /was shown a page/ }).first()).toBeVisible();
  await entries
    .getByRole('row', { name: /was shown a page/ })
    .first()
    .getByRole('button')
    .click();
  const side = page.getByRole('complementary', { name: 'The selected entry' });
  await expect(side).toContainText(/Mira Kolbe was shown a page, .+\./);
  await expect(
    side
      .getByRole('definition')
      .filter({ hasText: /^Chrome|Firefox|Safari|Edge/ })
      .first(),
  ).toBeVisible();
  await side.getByRole('button', { name: 'Why?' }).click();
  await expect(side.getByText(/Mira Kolbe (can|cannot) open/)).toBeVisible();
  await expectNothingSerious(page);
});

test('a long heading opens to all its values, and the span is told to the minute', async ({
  page,
}) => {
  await signIn(page, '/ledger');
  const organisations = page.getByRole('region', { name: 'Organisation' });
  await organisations.getByRole('button', { name: /^All \d+$/ }).click();
  await organisations.getByLabel('Find in Organisation').fill('lowtide');
  await organisations.getByRole('link', { name: /^Lowtide Engineering/ }).click();
  await expect(
    page.getByRole('link', { name: 'Remove the filter organisation: Lowtide Engineering' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Exact times' }).click();
  await typeInto(
    page,
    'From',
    new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
      .format(new Date())
      .replace('Sept', 'Sep'),
  );
  await typeInto(page, 'From what time', '00:01');
  await page.getByRole('button', { name: 'Show this period' }).click();
  await page.waitForURL(/from=20\d\d-\d\d-\d\dT00%3A01/);
  await expect(page.getByRole('link', { name: /Remove the filter .+ 00:01/ })).toBeVisible();
});

test('what somebody copies is written down as it is copied, and a page that failed comes back by itself', async ({
  page,
  browser,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Outline specification');
  await giveRights(page, 'Copy text');
  await addRecipients(page, 'vera.holt@brackwater.example');
  await page.getByLabel('Subject').fill('To copy from');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatch = page.url().split('/').at(-1) ?? '';
  const staff = await page.context().newPage();
  const reader = await prove(
    browser,
    staff,
    await linkFor(staff, 'vera.holt@brackwater.example', 'To copy from'),
    'vera.holt@brackwater.example',
  );
  await expect(
    reader.getByText(/the pages and text shown, what you copy, print, keep and pass on/),
  ).toBeVisible();
  await expect(reader.getByTestId('text-layer').first().locator('span').first()).toBeAttached();
  await open(staff, `/ledger?dispatch=${dispatch}&each=yes`);
  await expect(
    staff.getByRole('row', { name: /was sent the text of a page/ }).first(),
  ).toBeVisible();
  await expect(staff.getByRole('row', { name: /copied text/ })).toHaveCount(0);

  await reader
    .getByTestId('text-layer')
    .first()
    .evaluate((layer) => {
      window.getSelection()?.selectAllChildren(layer);
    });
  await reader.keyboard.press('ControlOrMeta+c');
  await expect(async () => {
    await staff.reload();
    await expect(
      staff.getByRole('row', { name: /copied text.*page 1; copied \d+ characters/ }),
    ).toBeVisible({ timeout: 1_000 });
  }).toPass({ timeout: 10_000 });

  // The words alone, as large as somebody needs them.
  await reader.getByRole('button', { name: 'Text only' }).click();
  const words = reader.getByTestId('page-words');
  await expect(words.getByText(/\w+ \w+ \w+/).first()).toBeVisible();
  const height = async () => (await words.boundingBox())?.height ?? 0;
  const before = await height();
  await words.getByRole('button', { name: 'Larger text' }).click();
  await words.getByRole('button', { name: 'Larger text' }).click();
  expect(await height()).toBeGreaterThan(before * 1.1);
  await expectNothingSerious(reader);
  await reader.getByRole('button', { name: 'Text only' }).click();

  await reader.context().setOffline(true);
  const pages = reader.locator('.page');
  const last = (await pages.count()) - 1;
  await pages.nth(last).scrollIntoViewIfNeeded();
  await expect(
    reader.getByText('The server cannot be reached.', { exact: false }).first(),
  ).toBeVisible();
  await reader.context().setOffline(false);
  await expect(pages.nth(last).locator('img')).toBeVisible({ timeout: 30_000 });
  await reader.context().close();
});

test('after a revocation a list says who is shut out and who tries, closes itself, and is exported signed', async ({
  page,
  browser,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, 'omar.kell@brackwater.example', 'ines.vold@brackwater.example');
  await page.getByLabel('Subject').fill('To be taken back');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatch = page.url();
  const staff = await page.context().newPage();
  const reader = await prove(
    browser,
    staff,
    await linkFor(staff, 'omar.kell@brackwater.example', 'To be taken back'),
    'omar.kell@brackwater.example',
  );
  await expect(reader.locator('.page img').first()).toBeVisible();
  await page.getByRole('button', { name: 'Revoke all…' }).click();
  await page.getByRole('button', { name: /^Revoke 2/ }).click();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'After the revocation' }).click();
  await expect(
    page.getByText('Closed: nobody named here can open it. Nobody has tried since', {
      exact: false,
    }),
  ).toBeVisible();

  await reader.reload();
  await expect(
    reader.getByRole('heading', { name: 'The sender has ended your access to this document.' }),
  ).toBeVisible();
  await page.reload();
  await expect(
    page.getByRole('row', { name: /omar\.kell@brackwater\.example.*1 time, last/ }),
  ).toBeVisible();
  await expectNothingSerious(page);

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Signed statement' }).click(),
  ]);
  const statement = readFileSync(await download.path(), 'utf8');
  expect(statement).toContain('Shut out: 2 of 2.');
  expect(statement).toMatch(/\n— \S+\/statement [A-Za-z0-9+/=]+\n$/);

  await page.locator('html[data-awake]').waitFor();
  await page
    .getByRole('row', { name: /ines\.vold/ })
    .getByRole('button', { name: 'Reinstate' })
    .click();
  await expect(page.getByRole('row', { name: /ines\.vold/ })).toHaveCount(0);
  await open(page, dispatch);
  await expect(page.getByRole('row', { name: /^omar\.kell.*revoked/ })).toHaveCount(1);
  await expect(page.getByRole('row', { name: /^ines\.vold.*revoked/ })).toHaveCount(0);
  await reader.context().close();
});

test('of what one is told, and what recipients and keepers are told, is chosen', async ({
  page,
  request,
}) => {
  await signIn(page, '/you');
  await page.getByRole('combobox', { name: 'Refusal' }).click();
  await page.getByRole('option', { name: 'at once' }).click();
  await expect(page.getByText('Refusal: you are told at once, from now on.')).toBeVisible();
  await expectNothingSerious(page);
  await page.getByRole('combobox', { name: 'Refusal' }).click();
  await page.getByRole('option', { name: 'not told' }).click();
  await expect(page.getByText('Refusal: you are no longer told.')).toBeVisible();

  expect((await request.get('/api/v1/checkpoint')).status()).toBe(404);
  await open(page, '/settings/work');
  await page
    .getByRole('checkbox', { name: 'Let anyone fetch the newest checkpoint without signing in' })
    .click();
  await expect(
    page.getByText('The newest checkpoint can be fetched without signing in.'),
  ).toBeVisible();
  const checkpoint = await request.get('/api/v1/checkpoint');
  expect(await checkpoint.text()).toMatch(
    /^\S+\n\d+\n[A-Za-z0-9+/]{43}=\n\n— \S+ [A-Za-z0-9+/=]+\n$/,
  );
  await page
    .getByRole('checkbox', { name: 'Let anyone fetch the newest checkpoint without signing in' })
    .click();
  await expect(
    page.getByText('The newest checkpoint can no longer be fetched without signing in.'),
  ).toBeVisible();
  await page.getByRole('combobox', { name: 'Tell recipients before their access ends' }).click();
  await page.getByRole('option', { name: '3 days ahead' }).click();
  await expect(page.getByText('Recipients are told 3 days ahead from now on.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Tell recipients before their access ends' }).click();
  await page.getByRole('option', { name: 'not told' }).click();
  await expect(page.getByText('Recipients are no longer told.')).toBeVisible();
  await expectNothingSerious(page);
});
