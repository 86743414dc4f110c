import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from './test';
import { open, signIn } from './people';

test('saved terms go out as ODRL and come back the same; a change is shown before it is made', async ({
  page,
}, info) => {
  await signIn(page, '/terms');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export terms' }).click(),
  ]);
  const file = info.outputPath('terms.jsonld');
  await download.saveAs(file);
  await page.getByLabel('ODRL file').setInputFiles(file);
  await expect(page.getByText('nothing would change')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();

  const changed = readFileSync(file, 'utf8')
    .replaceAll('P21D', 'P14D')
    .replace('"display"', '"play"');
  await page.getByLabel('ODRL file').setInputFiles({
    name: 'changed.jsonld',
    mimeType: 'application/ld+json',
    buffer: Buffer.from(changed),
  });
  await expect(page.getByText('the action "play" is not known here')).toBeVisible();
  await page.getByLabel('ODRL file').setInputFiles({
    name: 'changed.jsonld',
    mimeType: 'application/ld+json',
    buffer: Buffer.from(readFileSync(file, 'utf8').replaceAll('P21D', 'P14D')),
  });
  await expect(page.getByText('replaces the terms of this name')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1' }).click();
  await expect(page.getByRole('cell', { name: '14 days', exact: true })).toBeVisible();
});

test('access goes out as ODRL; what a file changes, revokes and gives anew is read before it is done', async ({
  page,
}, info) => {
  await signIn(page, '/dispatches');
  await page.getByRole('link', { name: 'For plan approval' }).click();
  await page.getByRole('button', { name: 'More' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Export as ODRL' }).click(),
  ]);
  const file = info.outputPath('grants.jsonld');
  await download.saveAs(file);
  const document = JSON.parse(readFileSync(file, 'utf8')) as {
    '@graph': { uid: string; assignee: string }[];
  };
  const [first] = document['@graph'];
  const another = {
    ...first,
    uid: 'urn:example:contract-7',
    assignee: 'mailto:pia.holm@mast.example',
  };
  const strange = { ...another, prohibition: [] };

  await open(page, '/dispatches');
  await page.getByRole('button', { name: 'Import access' }).click();
  const part = page.getByRole('region', { name: 'Import access' });
  await part.getByLabel('ODRL file').setInputFiles({
    name: 'contract.jsonld',
    mimeType: 'application/ld+json',
    buffer: Buffer.from(
      JSON.stringify({ ...document, '@graph': [...document['@graph'], another, strange] }),
    ),
  });
  await expect(part.getByText('1 of')).toBeVisible();
  await expect(part.getByText('“prohibition” is not known here')).toBeVisible();
  await part.getByLabel('Subject of the new dispatch').fill('Contract 7');
  await part.getByRole('button', { name: 'Import 1' }).click();
  await expect(part.getByText('1 agreement is imported.')).toBeVisible();
  await page.getByRole('link', { name: 'Contract 7' }).click();
  await expect(page.getByText('pia.holm@mast.example').first()).toBeVisible();
});
