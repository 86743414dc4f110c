import { expect } from '@playwright/test';
import { test } from './test';
import { expectNothingSerious, open, signIn } from './people';

test('a list of people is looked at and brought in; somebody new is given what they lack in one act', async ({
  page,
}) => {
  await signIn(page, '/people');
  await page.getByRole('button', { name: 'Import and export' }).click();
  const list =
    'email;name;organisation\nnew.one@new-office.example;New One;New Office\nnobody;X;\n';
  await page
    .getByLabel('Drop a list of people')
    .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(list) });
  await expect(page.getByText('“nobody” is not an email address')).toBeVisible();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Import 1' }).click();
  await expect(page.getByText('1 imported, 0 changed. Nobody was given access.')).toBeVisible();

  await open(page, '/people?q=new-office');
  await page.getByRole('table', { name: 'People' }).getByRole('link', { name: 'New One' }).click();
  await page.getByRole('button', { name: 'Give more documents…' }).click();
  await page.getByLabel('Search').last().fill('TQ-412');
  await expect(page.getByRole('row', { name: /Weight list/ })).toBeVisible();
  await page.getByLabel('Select all of these').check();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: /^Give \d+$/ }).click();
  await expect(page.getByText(/given\. No mail was sent/)).toBeVisible();
  await expect(page.getByText(/^New One\. Can open \d+ documents? now\./)).toBeVisible();

  // The same from the other side.
  await open(page, '/documents?q=weight');
  await page
    .getByRole('table', { name: 'Documents' })
    .getByRole('link', { name: 'Weight list' })
    .click();
  await page.getByRole('button', { name: 'Add people who lack it…' }).click();
  await expect(page.getByRole('heading', { name: /^Do not have it \d+/ })).toBeVisible();
  await page
    .getByRole('region', { name: 'Do not have it, to choose from' })
    .getByRole('checkbox')
    .nth(1)
    .check();
  await page.getByRole('button', { name: 'Give 1' }).click();
  await expect(page.getByText('Given to 1 person.')).toBeVisible();
});
