// The whole job in the browser on PDFs that nobody here made.
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { realDocument, withBrokenTable } from '../support/real-documents';
import { addDocuments, addRecipients, chooseNoMarking, giveRights } from './composing';
import { linkFor, open, prove, signIn } from './people';

const ADDRESS = 'anders.lyng@ferrow.example';
const files = [
  { name: 'Plot manual.pdf', buffer: realDocument('gnuplot'), pages: 311, title: 'Plot manual' },
  {
    name: 'Scanning introduction.pdf',
    buffer: realDocument('intro'),
    pages: 4,
    title: 'Scanning introduction',
  },
  {
    name: 'Scanning guide.pdf',
    buffer: withBrokenTable(realDocument('usage')),
    pages: 25,
    title: 'Scanning guide',
  },
];

/** How many different colours stand in a shown page: a blank one has a handful, from the watermark. */
async function coloursOf(reader: Page, page: number): Promise<number> {
  return reader
    .getByAltText(`Page ${String(page)}`, { exact: true })
    .evaluate(async (image: HTMLImageElement) => {
      await image.decode();
      const canvas = Object.assign(document.createElement('canvas'), { width: 200, height: 280 });
      const context = canvas.getContext('2d');
      context?.drawImage(image, 0, 0, 200, 280);
      return new Set(
        new Uint32Array(context?.getImageData(0, 0, 200, 280).data.buffer ?? new ArrayBuffer(0)),
      ).size;
    });
}

test('long, full of pictures or with a broken table, they are protected, sent, read and kept', async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000);
  await signIn(page, '/documents');
  await page.getByRole('button', { name: 'Protect files' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles(
      files.map(({ name, buffer }) => ({ name, buffer, mimeType: 'application/pdf' })),
    );
  await chooseNoMarking(page);
  await page.getByRole('button', { name: 'Encrypt 3 files' }).click();
  await expect(page.getByText('Protected. The clear original')).toHaveCount(3, { timeout: 30_000 });
  for (const { title, pages } of files)
    await expect(
      page
        .getByRole('row', { name: title })
        .getByRole('cell', { name: String(pages), exact: true }),
    ).toBeVisible();

  await open(page, '/compose');
  await addDocuments(page, ...files.map(({ title }) => title));
  await addRecipients(page, ADDRESS);
  await giveRights(page, 'Copy text', 'Print', 'Keep a copy');
  await page.getByLabel('Subject').fill('Three manuals');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');

  const reader = await prove(browser, page, await linkFor(page, ADDRESS, 'Three manuals'), ADDRESS);
  for (const { title, pages } of files) {
    await reader
      .getByRole('listitem')
      .filter({ hasText: title })
      .getByRole('button', { name: 'Read' })
      .click();
    await expect(reader.getByAltText('Page 1', { exact: true })).toBeVisible();
    expect(await coloursOf(reader, 1)).toBeGreaterThan(50);
    await reader.getByLabel('Page', { exact: true }).fill(String(pages));
    await reader.getByLabel('Page', { exact: true }).press('Enter');
    await expect(reader.getByAltText(`Page ${String(pages)}`, { exact: true })).toBeVisible();
    await expect(reader.getByLabel('Page', { exact: true })).toHaveValue(String(pages));
    // Pages that were never near the view were never asked for.
    await expect(reader.getByAltText(/^Page \d+$/)).not.toHaveCount(pages === 4 ? 0 : pages);
    await expect(reader.getByTestId('text-layer').first()).toBeAttached();
    const saved = reader.waitForEvent('download');
    await reader.getByRole('button', { name: 'Keep a copy' }).click();
    expect((await saved).suggestedFilename()).toContain(title);
    await reader.getByRole('button', { name: 'Back to the list' }).click();
  }
  await reader.context().close();

  await open(page, '/ledger?kind=taken');
  await expect(page.getByText('kept a copy').first()).toBeVisible();
});
