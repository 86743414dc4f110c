// What becomes of paper, of changed files, and of somebody who uses a screen reader.
import { expect, test } from '@playwright/test';
import { expectNothingSerious, open, signIn } from './people';

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
  await toDocument(page, 'Berth study');
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
