// What becomes of paper, of changed files, and of somebody who uses a screen reader.
import { expect } from '@playwright/test';
import { test } from './test';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

async function toDocument(page: Parameters<typeof open>[0], words: string): Promise<void> {
  await open(page, `/documents?q=${encodeURIComponent(words)}`);
  await page.getByRole('table', { name: 'Documents' }).getByRole('link').first().click();
  await page.waitForURL('**/documents/doc_*');
}

async function toMore(page: Parameters<typeof open>[0], item: string): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
}

test('a changed file is compared and accepted, and whoever has the document is told', async ({
  page,
}) => {
  await signIn(page);
  await toDocument(page, 'Berth study, particulars');
  await page.getByRole('link', { name: '1 changed file sent back: compare and answer' }).click();
  await expect(page.getByRole('button', { name: /^Berth study, east quay/ })).toBeVisible();
  const compared = page.getByRole('region', { name: 'Compared' });
  await expect(compared.getByRole('img')).toHaveCount(2);
  await expect(compared.locator('ins').first()).toHaveText(/of the east quay/);
  await expectNothingSerious(page);
  await compared.getByRole('button', { name: 'Page after' }).click();
  await expect(compared.getByText('2 of 3')).toBeVisible();
  await page.getByLabel('A sentence with your answer').fill('Thank you, taken over.');
  await page.getByRole('button', { name: 'Accept' }).click();
  await expect(page.getByText('You said: “Thank you, taken over.”')).toBeVisible();
  await expect(compared.getByText('Version 1, which was changed')).toBeVisible();
  await expect(compared.locator('ins').first()).toHaveText(/of the east quay/);
  await page.getByRole('link', { name: 'Back to the document' }).click();
  const versions = page.getByRole('region', { name: 'Versions' });
  await expect(versions.getByText('opens now')).toBeVisible();
  await versions.getByRole('button', { name: 'Tell everyone who has it…' }).click();
  await page.getByRole('button', { name: 'Mail them' }).click();
  await expect(versions.getByText(/^Everybody with access was told of version 2/)).toBeVisible();
});

test('other kinds of file are read as pages, a text is changed in the browser, a model is kept', async ({
  page,
  browser,
}) => {
  const address = 'vane@harbour-aldery.example';
  await signIn(page);
  const reader = await prove(
    browser,
    page,
    await linkFor(page, address, 'the files beside'),
    address,
  );
  const read = async (title: string): Promise<void> => {
    const entry = reader.getByRole('listitem').filter({ hasText: title });
    await entry.getByRole('button', { name: 'Read' }).click();
    await expect(reader.getByRole('heading', { name: title })).toBeVisible();
  };
  const back = () => reader.getByRole('button', { name: 'Back to the list' }).click();
  for (const title of ['Berth study, weights', 'Berth study, specification', 'East quay']) {
    await read(title);
    await expect(reader.locator('.page img').first()).toBeVisible();
    await back();
  }

  await read('Berth study, model');
  await expect(reader.getByText('Files of this kind cannot be shown as pages.')).toBeVisible();
  await expectNothingSerious(reader);
  const kept = reader.waitForEvent('download');
  await reader.getByRole('button', { name: 'Keep a copy' }).click();
  expect((await kept).suggestedFilename()).toBe('TQ-380-BS-07 Berth study, model.quaymodel');
  await expect(reader.getByText('as the file came, without a watermark')).toBeVisible();
  await back();

  await read('Berth study, notes');
  await reader.getByRole('button', { name: 'Change the text here' }).click();
  const text = reader.getByLabel('The text that you change');
  await text.fill((await text.inputValue()).replace('Fender 14', 'Fender 15'));
  await expectNothingSerious(reader);
  await reader.getByLabel('What you changed').fill('Counted again');
  await reader.getByRole('button', { name: 'Send the change' }).click();
  await expect(reader.getByRole('region', { name: 'Changed files' })).toContainText(
    'Berth notes.md',
  );

  await toDocument(page, 'Berth study, notes');
  await page.getByRole('link', { name: '1 changed file sent back: compare and answer' }).click();
  const compared = page.getByRole('region', { name: 'Compared' });
  await expect(compared.locator('ins').first()).toHaveText('15');
  await expect(compared.locator('del').first()).toHaveText('14');
});

test('a copy on paper is noted as destroyed, and as it was before', async ({ page }) => {
  await signIn(page);
  await toDocument(page, 'Weight list');
  await toMore(page, 'Copies on paper');
  const copy = page.getByRole('table', { name: 'Copies on paper' }).getByRole('row').nth(1);
  await expect(copy).toContainText('out');
  await copy.getByRole('checkbox').check();
  await page.getByRole('textbox', { name: 'Note' }).fill('shredded at the yard');
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Destroyed' }).click();
  await expect(copy).toContainText('destroyed');
  await expect(copy).toContainText('“shredded at the yard”');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(copy).toContainText('out');
});

test('reading aids are switched on for one person after what it means was read', async ({
  page,
}) => {
  await signIn(page);
  await toDocument(page, 'Weight list');
  await page.getByRole('button', { name: 'Mira Kolbe' }).first().click();
  const aids = page.getByRole('region', { name: 'Reading aids' });
  await aids.getByRole('button', { name: 'Switch on…' }).click();
  await expect(page.getByText('held by the reader, not by the server')).toBeVisible();
  await page.getByRole('button', { name: 'Switch on', exact: true }).click();
  await expect(aids.getByText(/^On:/)).toBeVisible();
  await aids.getByRole('button', { name: 'Switch off' }).click();
  await expect(aids.getByText(/^Off:/)).toBeVisible();
});
