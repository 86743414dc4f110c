// A protected file, from its sender to its reader, and in the hands of anyone else who finds it.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, chooseDelivery, inFold } from './composing';
import { countCodes, expectNothingSerious, newestCode, open, signIn } from './people';

const ADDRESS = 'petra.lind@kelder.example';

test('it is mailed, opened by other tools, by its cover page and by dropping it on the reader, and inspected', async ({
  page,
  browser,
  demo,
}, info) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, ADDRESS);
  await inFold(page, /^Delivery/, async (fold) => {
    await fold.getByRole('button', { name: 'A protected file' }).click();
    await fold.getByLabel('Show the title on its first page and in its file name').check();
  });
  await page.getByLabel('Subject').fill('Weights, to keep beside you');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');

  await expect(async () => {
    await open(page, `/mailroom?address=${encodeURIComponent(ADDRESS)}`);
    await page.getByRole('link', { name: 'Weights, to keep beside you' }).click({ timeout: 500 });
  }).toPass({ timeout: 15_000 });
  await expect(page.getByText('whose first page says how to open it')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /^TQ-412-WL-02 Weight list - for .*\.pdf$/ }).click(),
  ]);
  const file = info.outputPath('received.pdf');
  await download.saveAs(file);

  // With tools that anybody has, and the organisation's recovery key.
  expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain(
    'No syntax or stream encoding errors',
  );
  execFileSync('pdfdetach', ['-save', '1', '-o', info.outputPath('x.age'), file]);
  expect(
    execFileSync('age', ['-d', '-i', `${demo.DATA_DIR}/recovery-key.txt`, info.outputPath('x.age')])
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  const cover = execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' });
  expect(cover).toContain('This document was sent to you protected');
  const link = /http:\/\/localhost:\d+\/r\/[0-9a-z]{24}/.exec(cover)?.[0] ?? '';

  // Dropping the file leads where the cover page does: to the proof, and then to the document.
  const context = await browser.newContext();
  const reader = await context.newPage();
  await open(reader, '/r');
  await expectNothingSerious(reader);
  await reader.locator('input[type=file]').setInputFiles({
    name: 'letter.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('Dear all'),
  });
  await expect(reader.getByText('This is not a protected file.')).toBeVisible();
  await reader.locator('input[type=file]').setInputFiles({
    name: 'cut.pdf',
    mimeType: 'application/pdf',
    buffer: readFileSync(file).subarray(0, -700),
  });
  await expect(reader.getByText('it was cut, altered or saved again')).toBeVisible();
  await reader.locator('input[type=file]').setInputFiles(file);
  await reader.waitForURL(link);
  await reader.locator('html[data-awake]').waitFor();
  const before = await countCodes(page, ADDRESS);
  await reader.getByLabel('Your email address').fill(ADDRESS);
  await reader.getByRole('button', { name: 'Email me a code' }).click();
  await expect(reader.getByRole('heading', { name: 'Enter the code' })).toBeVisible();
  await reader.getByLabel('Code').fill(await newestCode(page, ADDRESS, before));
  await reader.getByRole('button', { name: 'Continue' }).click();
  await expect(reader.locator('.page img').first()).toBeVisible();
  await context.close();

  await open(page, '/documents');
  await page.getByRole('button', { name: 'Inspect a file' }).click();
  await page.getByLabel('Drop a protected file, or the age file').setInputFiles(file);
  await expect(page.getByText('Weight list, version 1.')).toBeVisible();
  await expect(page.getByText(`Made for ${ADDRESS}`)).toBeVisible();
  await expectNothingSerious(page);
});

test('files are taken to be carried by hand, for one or for everybody, and recognised when they come back', async ({
  page,
}, info) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, ADDRESS, 'someone@new-yard.example');
  await chooseDelivery(page, 'Both', 'I hand it over myself');
  await page.getByLabel('Subject').fill('On a stick');
  await page.getByRole('button', { name: 'Encrypt for hand-over' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  await page.locator('html[data-awake]').waitFor();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', {
        name: 'Download TQ-412-WL-02 as a protected file for someone@new-yard.example',
      })
      .click(),
  ]);
  expect(download.suggestedFilename()).toBe('TQ-412-WL-02 - for new-yard.example.pdf');
  await download.saveAs(info.outputPath('taken.pdf'));
  expect(
    execFileSync('pdftotext', [info.outputPath('taken.pdf'), '-'], { encoding: 'utf8' }),
  ).not.toContain('Weight list');
  const [forAll] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('region', { name: 'One file for everybody' })
      .getByRole('button', { name: 'Download TQ-412-WL-02' })
      .click(),
  ]);
  expect(forAll.suggestedFilename()).toMatch(/^TQ-412-WL-02 - for recipients of D-\d{4}\.pdf$/);
  await expect(page.getByRole('button', { name: 'Link of the file for everybody' })).toBeVisible();
  await expectNothingSerious(page);
  await open(page, '/ledger');
  await expect(page.getByText('downloaded a protected file').first()).toBeVisible();

  await open(page, '/compose');
  await page.getByLabel('Files to protect').setInputFiles(info.outputPath('taken.pdf'));
  await expect(
    page.getByText('This file is protected already: Weight list, TQ-412-WL-02.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Use TQ-412-WL-02' }).click();
  await expect(
    page.getByRole('list', { name: 'Chosen documents' }).getByText('Weight list', { exact: true }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
});

test('the recovery key is tried, and a wrong one is said to be wrong; many keys need their number typed', async ({
  page,
  demo,
}, info) => {
  await signIn(page, '/today');
  await page
    .getByRole('navigation', { name: 'Places' })
    .getByRole('link', { name: 'Settings' })
    .click();
  await page.getByRole('link', { name: 'Keys and recovery' }).click();
  await expect(page.getByRole('heading', { name: 'Keys and recovery' })).toBeVisible();
  await page.locator('html[data-awake]').waitFor();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Try the recovery key' }).click();
  writeFileSync(
    info.outputPath('wrong.txt'),
    execFileSync('age-keygen', { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
  );
  await page.getByLabel('The recovery key’s file').setInputFiles(info.outputPath('wrong.txt'));
  await page.getByRole('button', { name: 'Open file' }).click();
  await expect(page.getByText('This key does not open the file')).toBeVisible();
  await expect(page.getByText('it did not open.')).toBeVisible();
  await page
    .getByLabel('The recovery key’s file')
    .setInputFiles(`${demo.DATA_DIR}/recovery-key.txt`);
  await page.getByRole('button', { name: 'Open file' }).click();
  await expect(page.getByText('was opened with the recovery key alone')).toBeVisible();
  await expect(page.getByText('it opened.')).toBeVisible();

  await open(page, '/documents');
  await page.getByLabel('Select all that are shown').check();
  await page.getByRole('button', { name: 'Destroy the keys…' }).click();
  const confirm = page.getByRole('dialog');
  await expect(confirm.getByRole('button', { name: 'Destroy the keys' })).toBeDisabled();
  await confirm.getByRole('button', { name: 'Cancel' }).click();
});
