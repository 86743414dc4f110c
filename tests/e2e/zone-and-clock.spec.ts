// The demo's bar: somebody else's mailbox, another place and device, and the clock put forward.
// Last, since the clock stays.
import { expect } from '@playwright/test';
import { test } from './test';
import { countCodes, linkFor, newestCode, open, signIn } from './people';

test('one steps into a mailbox, opens from elsewhere on another device, and sees access end with time', async ({
  page,
  context,
}) => {
  await signIn(page);
  const bar = page.getByRole('complementary', { name: 'Demo' });
  await bar.getByLabel('Mailbox').selectOption({ label: 'Wilma Aske, wilma.aske@ferrow.example' });
  await expect(page).toHaveURL(/mailroom\?address=wilma/);
  await bar.getByLabel('Place').selectOption({ label: 'Costa Brume (198.51.100.200)' });
  await expect(bar.getByLabel('Place')).toHaveValue('198.51.100.200');
  await bar.getByLabel('Device').selectOption({ label: 'A phone' });
  await expect(bar.getByLabel('Device')).toHaveValue(/Android/);

  const link = await linkFor(page, 'wilma.aske@ferrow.example', 'Tender round 1');
  const reader = await context.newPage();
  const before = await countCodes(page, 'wilma.aske@ferrow.example');
  await open(reader, link);
  await reader.getByLabel('Your email address').fill('wilma.aske@ferrow.example');
  await reader.getByRole('button', { name: 'Email me a code' }).click();
  await expect(reader.getByRole('heading', { name: 'Enter the code' })).toBeVisible();
  await reader.getByLabel('Code').fill(await newestCode(page, 'wilma.aske@ferrow.example', before));
  await reader.getByLabel(/Remember this device/).check();
  await reader.getByRole('button', { name: 'Continue' }).click();
  await reader.getByRole('button', { name: 'Read' }).first().click();
  await expect(reader.locator('.page img').first()).toBeVisible();
  await open(page, '/ledger?place=Costa+Brume&kind=opened');
  await expect(page.locator('table.list tbody tr').first()).toContainText('Wilma Aske');

  await open(page, '/today');
  await bar.getByRole('button', { name: '+ 1 week' }).click();
  await expect(bar).toContainText('put forward');
  await bar.getByRole('button', { name: '+ 1 week' }).click();
  // The page that was open goes blank by itself, and says why.
  await expect(
    reader.getByRole('heading', { name: 'Your access to this document has ended.' }),
  ).toBeVisible({ timeout: 10_000 });
  await expect(reader.getByRole('button', { name: 'Ask for more, or write' })).toBeVisible();
});
