// Protected files on people's own machines: encrypted in the sender's browser, read in the
// recipient's, with a connection and without, until access ends.
import { randomBytes } from 'node:crypto';
import { readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { expect, type Browser, type Page } from '@playwright/test';
import { PDFDict, PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib';
import { HOUR } from '@/core/base/time';
import { addRecipients, giveRights } from './composing';
import { countCodes, expectNothingSerious, linkFor, newestCode, open, signIn } from './people';
import { test } from './test';

/** A PDF that nothing else in the world is like: what is looked for on the service's disk. */
async function secretPdf(): Promise<{ readonly pdf: Buffer; readonly secret: Buffer }> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (const page of [1, 2])
    document
      .addPage([595, 842])
      .drawText(`Offer, page ${String(page)}`, { x: 60, y: 760, size: 24, font });
  const secret = randomBytes(48);
  return { pdf: Buffer.concat([await document.save(), Buffer.from('\n%'), secret]), secret };
}

function isOnDisk(folder: string, bytes: Buffer): boolean {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => path.join(folder, name))
    .filter((file) => statSync(file).isFile())
    .some((file) => readFileSync(file).includes(bytes));
}

/** Proves an address where the page asks for it, on a device that is remembered. */
async function proveHere(page: Page, staff: Page, address: string): Promise<void> {
  const before = await countCodes(staff, address);
  await page.getByLabel('Your email address').fill(address);
  await page.getByRole('button', { name: 'Email me a code' }).click();
  await page.getByLabel('Code').fill(await newestCode(staff, address, before));
  await page.locator('input[type=radio][value=kept]').check();
  await page.getByRole('button', { name: 'Continue' }).click();
}

async function newReader(browser: Browser): Promise<Page> {
  return (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
}

/** Sets the clock of a browser by so many ms, from the next page on. */
async function setClock(page: Page, by: number): Promise<void> {
  await page.evaluate((shift) => {
    localStorage.setItem('clock', String(shift));
  }, by);
}

/** Revokes whatever a dispatch gave, on its page. */
async function revokeAll(staff: Page): Promise<void> {
  await staff.locator('html[data-awake]').waitFor();
  await staff.getByRole('button', { name: 'Revoke all…' }).click();
  await staff.getByRole('button', { name: /^Revoke 1/ }).click();
}

/** Presses a button that saves a PDF, and reads it. */
async function saved(page: Page, button: string, file: string): Promise<PDFDocument> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button }).click(),
  ]);
  await download.saveAs(file);
  return PDFDocument.load(readFileSync(file));
}

const pick = (page: Page, file: string) => page.locator('input[type=file]').setInputFiles(file);
const firstPage = (page: Page) => page.locator('.page img').first();

test('a document is encrypted in the sender’s browser, and opens for those it was sent to alone', async ({
  page: staff,
  browser,
  demo,
}, info) => {
  const address = 'nora.wick@brackwater.example';
  const { pdf, secret } = await secretPdf();
  await signIn(staff, '/compose');
  await staff.getByRole('button', { name: 'Encrypt on this machine…' }).click();
  const dialog = staff.getByRole('dialog');
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'Offer.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(dialog.getByText('2 pages')).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Marking' }).click();
  await staff.getByRole('option', { name: 'none' }).click();
  await expectNothingSerious(staff);
  const [download] = await Promise.all([
    staff.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Encrypt on this machine' }).click(),
  ]);
  const file = info.outputPath('offer.pdf');
  await download.saveAs(file);
  await dialog.getByRole('button', { name: 'Close' }).click();

  // It cannot be sent where nobody could read it.
  await addRecipients(staff, address);
  await expect(staff.getByText('may not open it on their own machine')).toBeVisible();
  await staff.getByRole('button', { name: 'Let it be opened on their own machines' }).click();
  await expect(staff.getByText('by the reader').first()).toBeVisible();
  await giveRights(staff, 'Copy text', 'Print', 'Keep a copy');
  await staff.getByLabel('Subject').fill('An offer, by another way');
  await staff.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await staff.waitForURL('**/dispatches/dsp_*');

  const link = await linkFor(staff, address, 'An offer, by another way');
  const reader = await newReader(browser);
  const calls: string[] = [];
  reader.on('request', (request) => calls.push(request.url()));
  await open(reader, link);
  await proveHere(reader, staff, address);
  await expect(reader.getByText('is nowhere else. Open the protected file')).toBeVisible();
  await expectNothingSerious(reader);
  await pick(reader, file);
  await expect(firstPage(reader)).toBeVisible();
  await expect(reader.getByText('Read on this machine, from the file offer.pdf')).toBeVisible();
  expect(calls.filter((url) => url.includes('/pages/'))).toEqual([]);
  await expectNothingSerious(reader);

  await test.step('it is printed and kept there, marked, and that is on the record', async () => {
    await reader.getByLabel('From page').fill('2');
    const printed = await saved(reader, 'Make a marked copy', info.outputPath('printed.pdf'));
    expect(printed.getPageCount()).toBe(1);
    expect(printed.getPage(0).getSize()).toEqual({ width: 595, height: 842 });
    await expect(reader.getByText('A marked copy was saved')).toBeVisible();
    const kept = await saved(reader, 'Keep a copy', info.outputPath('kept.pdf'));
    await expect(reader.getByText('A copy with the watermark was saved')).toBeVisible();
    expect(kept.getPageCount()).toBe(2);
    const marks = kept.getPage(0).node.Resources()?.lookup(PDFName.of('XObject'), PDFDict);
    expect(marks?.keys().map(String).join()).toContain('Watermark');
    expect(calls.filter((url) => /\/(print|keep)$/.test(url))).toEqual([]);
    await open(staff, '/ledger');
    await expect(staff.getByText('printed').first()).toBeVisible();
    await expect(staff.getByText('kept a copy').first()).toBeVisible();
    await staff.goBack();
  });

  // Somebody else with the same file and the same link.
  const stranger = await newReader(browser);
  await open(stranger, '/r');
  await pick(stranger, file);
  await stranger.waitForURL('**/r/sent');
  await proveHere(stranger, staff, 'aksel.pell@pell.example');
  await expect(stranger.getByText('The file offer.pdf is not among these')).toBeVisible();
  await expect(stranger.locator('.page img')).toHaveCount(0);

  // A file that was altered, and then the right one again.
  const altered = readFileSync(file);
  altered[altered.length - 900] = (altered[altered.length - 900] ?? 0) ^ 1;
  await reader.reload();
  await reader.locator('html[data-awake]').waitFor();
  await reader
    .locator('input[type=file]')
    .setInputFiles({ name: 'altered.pdf', mimeType: 'application/pdf', buffer: altered });
  await expect(reader.getByText('could not be opened here')).toBeVisible();
  await pick(reader, file);
  await expect(firstPage(reader)).toBeVisible();

  // Revoked: blank at once, and the same file opens nothing.
  await revokeAll(staff);
  await expect(reader.locator('.page img')).toHaveCount(0);
  await expect(
    reader.getByRole('heading', { name: 'The sender has ended your access to this document.' }),
  ).toBeVisible();

  expect(isOnDisk(demo.DATA_DIR, secret)).toBe(false);
});

test('a file is read without a connection until its time is over, and that is told afterwards', async ({
  page: staff,
  browser,
}, info) => {
  // Codes for one address are few: whoever runs this again has another.
  const address = `tove.${String(Date.now() % 100_000)}@brackwater.example`;
  await signIn(staff, '/documents');
  const dispatched = await staff.evaluate(
    async ({ recipient, offline, until }) => {
      const json = { 'content-type': 'application/json' };
      const found = await fetch('/api/v1/documents?q=Weight%20list&own=true');
      const { rows } = (await found.json()) as {
        readonly rows: readonly { readonly id: string }[];
      };
      const sent = await fetch('/api/v1/dispatches', {
        method: 'POST',
        headers: json,
        body: JSON.stringify({
          documents: [rows[0]?.id],
          recipients: [{ address: recipient, name: 'Tove Lind', organisation: '' }],
          terms: {
            rights: ['read', 'copy', 'comment'],
            from: null,
            until,
            prints: null,
            conditions: { offline },
          },
          subject: 'For the train',
          note: '',
          watermark: [],
          delivery: 'mail',
          form: 'both',
        }),
      });
      const { id } = (await sent.json()) as { readonly id: string };
      return { status: sent.status, id, document: rows[0]?.id ?? '' };
    },
    { recipient: address, offline: 5 * HOUR, until: Date.now() + 400 * HOUR },
  );
  expect(dispatched.status).toBe(200);
  const link = await linkFor(staff, address, 'For the train');
  const reader = await newReader(browser);
  await reader.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + Number(localStorage.getItem('clock') ?? 0);
  });
  await open(reader, link);
  await proveHere(reader, staff, address);
  await expect(firstPage(reader)).toBeVisible();
  // Whoever has not kept the message has its file once more, and reads on from there.
  const [download] = await Promise.all([
    reader.waitForEvent('download'),
    reader.getByRole('button', { name: 'Save the file, and read it on this machine' }).click(),
  ]);
  const file = info.outputPath('train.pdf');
  await download.saveAs(file);
  await expect(reader.getByText('Read on this machine, from the file')).toBeVisible();
  await expect(firstPage(reader)).toBeVisible();
  const worker = () =>
    reader.evaluate(
      async () => (await navigator.serviceWorker.getRegistration('/r'))?.active?.state,
    );
  await expect.poll(worker).toBe('activated');

  await reader.context().setOffline(true);
  await reader.goto(new URL('/r/sent', reader.url()).href);
  await expect(reader.getByRole('heading', { name: 'No connection' })).toBeVisible();
  await expect(reader.getByText('Weight list')).toBeVisible();
  await expectNothingSerious(reader);
  await pick(reader, file);
  await expect(firstPage(reader)).toBeVisible();
  const until = reader.getByText('Read without a connection, until').filter({ visible: true });
  await expect(until).toBeVisible();
  // On a phone that is said as well, and what else is said is one step away.
  await reader.setViewportSize({ width: 390, height: 844 });
  await expect(until).toBeVisible();
  await reader.getByRole('button', { name: 'What you may do' }).click();
  await expect(reader.getByText('What you read is noted on this machine')).toBeVisible();
  await reader.getByRole('button', { name: 'Back to the pages' }).click();
  await reader.setViewportSize({ width: 1280, height: 800 });
  await test.step('what is written there is kept, also where the page is left before it is told', async () => {
    await reader.getByRole('button', { name: 'Comment on a page' }).click();
    await reader
      .getByTestId('placing')
      .first()
      .click({ position: { x: 90, y: 60 } });
    await reader.getByLabel('Comment on page 1').fill('The weights of the pump are missing');
    await expect(reader.getByText('sees it once there is a connection')).toBeVisible();
    await reader.getByRole('button', { name: 'Save comment' }).click();
    await reader.goto(reader.url());
    await pick(reader, file);
    await expect(reader.getByText('The weights of the pump are missing')).toBeVisible();
    await expectNothingSerious(reader);
  });
  // A second or two, so that there is something to tell.
  await reader.waitForTimeout(2_500);

  // Six hours later it is over, and a clock that was set back does not help.
  const page = reader.url();
  await setClock(reader, 6 * HOUR);
  await reader.goto(page);
  await pick(reader, file);
  await expect(
    reader.getByText('The time for reading this file without a connection is over'),
  ).toBeVisible();
  await setClock(reader, -HOUR);
  await reader.goto(page);
  await pick(reader, file);
  await expect(reader.getByText('The clock of this machine was set back')).toBeVisible();
  await setClock(reader, 0);

  // With a connection again, what was read is handed in; the licence is over as soon as access is.
  await open(staff, `/dispatches/${dispatched.id}`);
  await expect(staff.getByText('could read on, the last until')).toBeVisible();
  await expectNothingSerious(staff);
  await revokeAll(staff);
  await reader.context().setOffline(false);
  const handedIn = reader.waitForResponse((answer) =>
    answer.url().endsWith('/api/v1/reader/offline'),
  );
  await reader.goto(page);
  await handedIn;
  // Also what was written, although access has ended meanwhile.
  await expect
    .poll(async () =>
      staff.evaluate(
        async (document) => (await fetch(`/api/v1/documents/${document}/comments`)).text(),
        dispatched.document,
      ),
    )
    .toContain('The weights of the pump are missing');
  await expect(async () => {
    await open(staff, '/ledger');
    await expect(staff.getByText('read without a connection').first()).toBeVisible({
      timeout: 500,
    });
  }).toPass({ timeout: 20_000 });
  await expect(async () => {
    await open(staff, `/dispatches/${dispatched.id}`);
    await expect(staff.getByText('Nobody may read on their own machine')).toBeVisible({
      timeout: 500,
    });
  }).toPass({ timeout: 20_000 });
  await reader.context().setOffline(true);
  await reader.goto(page);
  await pick(reader, file);
  await expect(reader.getByText('This file needs a connection')).toBeVisible();
});
