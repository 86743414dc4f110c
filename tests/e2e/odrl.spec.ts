import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { open, signIn } from './people';

test('kept terms go out as ODRL and come back the same; a change is shown before it is made', async ({ page }, info) => {
  await signIn(page);
  await open(page, '/terms');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take them out' }).click()]);
  const file = info.outputPath('terms.jsonld');
  await download.saveAs(file);
  await page.getByLabel('ODRL file').setInputFiles(file);
  await expect(page.getByText('nothing in it would change anything')).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();

  const changed = readFileSync(file, 'utf8').replaceAll('P21D', 'P14D').replace('"display"', '"play"');
  await page.getByLabel('ODRL file').setInputFiles({ name: 'changed.jsonld', mimeType: 'application/ld+json', buffer: Buffer.from(changed) });
  await expect(page.getByText('the action "play" is none of ours')).toBeVisible();
  await page.getByLabel('ODRL file').setInputFiles({ name: 'changed.jsonld', mimeType: 'application/ld+json', buffer: Buffer.from(readFileSync(file, 'utf8').replaceAll('P21D', 'P14D')) });
  await expect(page.getByText('takes the place of the terms of this name')).toBeVisible();
  await page.getByRole('button', { name: 'Keep 1' }).click();
  await expect(page.getByRole('cell', { name: '14 days', exact: true })).toBeVisible();
});
