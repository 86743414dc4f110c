// `npm start`: an empty product, set up in the browser; and the recovery key made there opens its files without it.
import { execFileSync } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import { test } from './test';
import { drawPaper } from '../../demo/drawings';
import { startServed, type Served } from '../support/served';
import { expectNothingSerious, open } from './people';

let served: Served;
test.beforeAll(async () => {
  served = await startServed();
});
test.afterAll(async () => {
  await served.stop();
});

test('the first visit sets the organisation up, and its recovery key opens what is protected', async ({
  page,
}, info) => {
  await open(page, served.url);
  await expect(page.getByRole('heading', { name: 'Set up Embargo' })).toBeVisible();
  await page.getByLabel('Set-up token').fill('not-the-token');
  await page.getByLabel('Name of your organisation').fill('Tern & Quill');
  await page.getByLabel('Your name').fill('Ida Roe');
  await page.getByLabel('Your email address').fill('ida.roe@tern-quill.example');
  await page.getByLabel('Password').fill('harbour-lights-412');
  await page.getByRole('button', { name: 'Set up' }).click();
  await expect(page.locator('p[role=alert]')).toContainText('Make the recovery key');

  await page.getByRole('button', { name: 'Make the recovery key' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  const key = info.outputPath('recovery.txt');
  await download.saveAs(key);
  expect(readFileSync(key, 'utf8')).toContain(
    await page.getByTestId('recovery-private').innerText(),
  );
  await page.getByLabel('The recovery key’s file').setInputFiles(key);
  await page.getByRole('button', { name: 'Check key' }).click();
  await expect(page.getByText('stored and entered again correctly')).toBeVisible();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Set up' }).click();
  await expect(page.locator('p[role=alert]')).toContainText('That is not the set-up token');
  await page.getByLabel('Set-up token').fill(served.setUpToken);
  await page.getByRole('button', { name: 'Set up' }).click();

  await page.waitForURL('**/sign-in');
  await page.getByLabel('Email address').fill('ida.roe@tern-quill.example');
  await page.getByLabel('Password').fill('wrong and long enough');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.locator('p[role=alert]')).toBeVisible();
  await page.getByLabel('Password').fill('harbour-lights-412');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/today');
  await expect(page.getByText('nothing to do')).toBeVisible();
  await open(page, `${served.url}/dispatches`);
  // A new product says what to do, on every screen, and has no mailroom: real mail is not read by staff.
  await expect(page.getByText('No dispatches yet')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Mailroom' })).toHaveCount(0);

  await open(page, `${served.url}/compose`);
  await expect(page.getByText('No mail server is set up here')).toBeVisible();
  await open(page, `${served.url}/documents`);
  const pdf = await drawPaper({ reference: 'R-1', title: 'Keel', kind: 'lines', pages: 1 });
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'Keel.pdf', mimeType: 'application/pdf', buffer: Buffer.from(pdf) });
  await page.getByRole('button', { name: 'Encrypt this file' }).click();
  await expect(page.getByText('Protected. The clear original')).toBeVisible();
  const blobs = readdirSync(path.join(served.folder, 'blobs'), {
    recursive: true,
    encoding: 'utf8',
  }).map((name) => path.join(served.folder, 'blobs', name));
  const sealed = blobs.find(
    (file) =>
      !readdirSync(path.dirname(file), { withFileTypes: true })
        .find((each) => each.name === path.basename(file))
        ?.isDirectory(),
  );
  expect(execFileSync('age', ['-d', '-i', key, sealed ?? '']).equals(Buffer.from(pdf))).toBe(true);
  // The private half never left the browser: neither what was printed nor any file here holds it.
  expect(served.printed()).not.toContain('AGE-SECRET-KEY');

  // Set-up is over once it was done.
  await open(page, `${served.url}/set-up`);
  await expect(page).not.toHaveURL(/set-up/);
});
