import { writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from './test';
import { drawPaper } from '../../demo/drawings';
import { addDocuments, addRecipients, cellOf, chooseNoMarking, inFold } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

test('a document is encrypted, sent, read, revoked while it is read, and on the record', async ({
  page,
  browser,
}, info) => {
  await signIn(page);
  const file = info.outputPath('Berth drawing.pdf');
  writeFileSync(
    file,
    await drawPaper({ reference: 'E2E-1', title: 'Berth drawing', kind: 'arrangement', pages: 2 }),
  );
  await open(page, '/documents');
  await page.getByRole('button', { name: 'Protect files' }).click();
  await page.locator('input[type=file]').setInputFiles(file);
  await chooseNoMarking(page);
  await page.getByRole('button', { name: 'Encrypt this file' }).click();
  await expect(page.getByText('Protected. The clear original')).toBeVisible();
  await page.getByRole('link', { name: 'Berth drawing' }).click();
  await page.getByRole('link', { name: 'Dispatch', exact: true }).click();

  await addRecipients(page, 'lena.berg@ferrow.example');
  await page.getByLabel('Subject').fill('The berth drawing');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatchUrl = page.url();

  const staff = await page.context().newPage();
  const reader = await prove(
    browser,
    staff,
    await linkFor(staff, 'lena.berg@ferrow.example', 'The berth drawing'),
    'lena.berg@ferrow.example',
  );
  await expect(reader.locator('.page img').first()).toBeVisible();
  await expect(reader.getByText('you are here as lena.berg@ferrow.example')).toBeVisible();
  await expect(reader.getByText('was not given to you').first()).toBeVisible();
  await expect(reader.getByRole('button', { name: 'Keep a copy', exact: true })).toHaveCount(0);
  await expectNothingSerious(reader);

  // A copied cookie without this browser's key is worth nothing.
  const picture = await reader.evaluate(
    () =>
      performance
        .getEntriesByType('resource')
        .map((entry) => entry.name)
        .find((name) => name.includes('/pages/')) ?? '',
  );
  expect(picture).toContain('/pages/1');
  expect((await reader.request.get(picture)).status()).toBe(401);

  await open(page, dispatchUrl);
  await page.getByRole('row', { name: /^lena.berg@ferrow.example/ }).click();
  await page.getByRole('button', { name: 'Revoke 1…' }).click();
  await page.getByRole('button', { name: 'Revoke 1', exact: true }).click();
  const since = Date.now();
  await expect(
    reader.getByRole('heading', { name: 'The sender has ended your access to this document.' }),
  ).toBeVisible({ timeout: 3_000 });
  expect(Date.now() - since).toBeLessThan(2_500);
  await expect(reader.locator('.page img')).toHaveCount(0);

  await open(page, '/ledger');
  await page.getByRole('link', { name: 'only failed' }).click();
  await page.waitForURL(/failed/);
  await expect(page.getByText('revoked access')).toHaveCount(0);
  await open(page, '/ledger');
  await expect(page.getByText('revoked access').first()).toBeVisible();
  await open(page, dispatchUrl);
  await page.getByRole('row', { name: /^lena.berg@ferrow.example/ }).click();
  await page.getByRole('button', { name: 'Reinstate 1' }).click();
  await reader.reload();
  await expect(reader.locator('.page img').first()).toBeVisible();
  await reader.context().close();
});

test('a half-made dispatch survives the page, with a person set apart, until it is discarded', async ({
  page,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, 'Mira Kolbe', 'jonas.feld@brackvater.example');
  await expect(
    page.getByText('is new and one letter away from jonas.feld@brackwater.example'),
  ).toBeVisible();
  await cellOf(page, 'Mira Kolbe', 'Copy text').click();
  await page.getByLabel('Subject').fill('Drafts:');
  await expect(page.getByText('saved as a draft')).toBeVisible();

  await open(page, '/compose');
  await page.getByRole('link', { name: /^Drafts:/ }).click();
  await expect(page.getByLabel('Subject')).toHaveValue('Drafts:');
  await expect(
    page.getByRole('list', { name: 'Chosen documents' }).getByText('Weight list'),
  ).toBeVisible();
  await expect(cellOf(page, 'Mira Kolbe', 'Copy text')).toHaveAccessibleName('Copy text: yes');
  await inFold(page, /^Message/, (fold) => fold.getByLabel('Note').fill('More'));
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByLabel('Subject')).toHaveValue('');
  await expect(page.getByRole('link', { name: /^Drafts:/ })).toHaveCount(0);
});

test('a forwarded link opens nothing for a stranger, on a phone', async ({ page, browser }) => {
  await signIn(page);
  const link = await linkFor(page, 'mira.kolbe@brackwater.example', 'Tender round 1, Hull 412');
  const reader = await prove(browser, page, link, 'curious@outsider.example', {
    width: 390,
    height: 800,
  });
  await expect(
    reader.getByRole('heading', { name: 'This was not sent to this email address.' }),
  ).toBeVisible();
  await expect(reader.getByText('mira')).toHaveCount(0);
  await reader.context().close();
});

test('what is not a PDF is refused in words, and a wrong origin is not served', async ({
  page,
  request,
}) => {
  await signIn(page, '/documents');
  await page.getByRole('button', { name: 'Protect files' }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'report.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('Dear all,'),
  });
  await chooseNoMarking(page);
  await page.getByRole('button', { name: 'Encrypt this file' }).click();
  await expect(page.getByText('This file is not a PDF.')).toBeVisible();
  const forged = await page.request.post('/api/v1/grants/revoke', {
    data: { grants: [] },
    headers: { origin: 'https://elsewhere.example' },
  });
  expect(forged.status()).toBe(403);
  expect((await request.get('/api/v1/ledger/export')).status()).toBe(401);
});
