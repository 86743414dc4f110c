// What goes on after a dispatch has left: mail that comes back, what is added, what is asked.
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, inFold } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

const OSKAR = 'o.brandt@ferrow.example';

async function setMailbox(page: Page, act: 'Close mailbox' | 'Open mailbox'): Promise<void> {
  await open(page, `/mailroom?address=${encodeURIComponent(OSKAR)}`);
  await page.getByRole('button', { name: act }).click();
  await expect(page.getByRole('status')).toBeVisible();
}

test('mail that came back is sent again, a document is added, a question goes back and forth', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await setMailbox(page, 'Close mailbox');
  await open(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, OSKAR);
  await page.getByLabel('Subject').fill('After the sending');
  await inFold(page, 'Message', async (fold) => {
    await fold.getByLabel('Note').fill('Dear ');
    await fold.getByRole('button', { name: 'Recipient' }).click();
    await expect(fold.getByLabel('Note')).toHaveValue('Dear {recipient}');
    await fold.getByRole('button', { name: 'Preview' }).click();
    await expect(fold.getByRole('region', { name: 'Preview of the mail' })).toContainText(
      'Dear Oskar Brandt',
    );
    // A mail with several documents is long: nothing in it may be out of a keyboard's reach.
    await page.setViewportSize({ width: 900, height: 800 });
    await expectNothingSerious(page, { rules: ['scrollable-region-focusable'] });
    await page.setViewportSize({ width: 1280, height: 800 });
    await fold.getByRole('button', { name: 'Save this text' }).click();
    await fold.getByLabel('Name of the text').fill('Greeting');
    await fold.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(fold.getByRole('button', { name: 'Remove “Greeting”' })).toBeVisible();
    await expectNothingSerious(page);
  });
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatch = page.url();
  const handed = page.getByRole('region', { name: 'Handed over' });
  await expect(async () => {
    await open(page, dispatch);
    await expect(handed).toContainText('There is no such mailbox', { timeout: 1_000 });
  }).toPass();

  await setMailbox(page, 'Open mailbox');
  await open(page, dispatch);
  await handed.getByRole('button', { name: 'Mail again to 1' }).click();
  await expect(handed).toContainText('1 delivered');
  await page.getByRole('button', { name: 'Add documents' }).click();
  const adding = page.getByRole('region', { name: 'Add documents' });
  await addDocuments(page, 'Tender schedule');
  await expectNothingSerious(page);
  await adding.getByRole('button', { name: 'Add 1 document' }).click();
  await expect(page.getByRole('button', { name: 'Tender schedule' })).toBeVisible();

  const reader = await prove(browser, page, await linkFor(page, OSKAR, 'After'), OSKAR);
  await expect(reader.getByText('Dear Oskar Brandt')).toBeVisible();
  await reader.getByRole('button', { name: 'Read' }).first().click();
  const own = reader.getByRole('region', { name: 'What you asked for' });
  await own.getByRole('button', { name: 'Ask for more, or write' }).click();
  await own.getByLabel(/^To copy/).check();
  await own.getByLabel('Reason or message').fill('For the loft');
  await own.getByRole('button', { name: /^Send to/ }).click();
  await expect(own).toContainText('waiting for an answer');

  await open(page, '/today');
  const asked = page.getByRole('region', { name: 'Requests to you' });
  const row = asked.getByRole('row').filter({ hasText: 'Oskar Brandt' });
  await row.getByRole('button', { name: 'Answer' }).click();
  await asked.getByLabel('Message').fill('How many copies?');
  await asked.getByRole('button', { name: 'Ask back' }).click();
  await expect(row).toContainText('Waiting for their reply');
  await expect(own).toContainText('How many copies?');
  await own.getByLabel('Your reply').fill('Two');
  await expectNothingSerious(reader);
  await own.getByRole('button', { name: /^Reply to/ }).click();
  await expect(own).toContainText('You replied: “Two”');
  await open(page, '/today');
  await expect(row).toContainText('Reply: “Two”');

  await open(page, dispatch);
  await handed.getByRole('button', { name: '1 recipient' }).click();
  await handed.getByRole('button', { name: 'Link of Oskar Brandt' }).click();
  await page.getByRole('menuitem', { name: 'Switch off link' }).click();
  await expect(handed).toContainText('link switched off');
});

test('dispatches are narrowed and the view is saved; several people are put into a group', async ({
  page,
}) => {
  await signIn(page, '/dispatches');
  const filters = page.getByRole('group', { name: 'Filters' });
  await filters.getByLabel('Organisation').click();
  await page.getByRole('option', { name: 'Kelder Shipworks' }).click();
  await expect(page.getByRole('link', { name: 'For your lawyers' })).toBeVisible();
  await filters.getByLabel('State').click();
  await page.getByRole('option', { name: 'Mail not delivered' }).click();
  await expect(page.getByText(/^1 of /)).toBeVisible();
  await page.getByRole('button', { name: 'Save this view' }).click();
  await page.getByLabel('Name of the view').fill('Kelder, not reached');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Kelder, not reached' })).toBeVisible();
  await expectNothingSerious(page);

  await open(page, '/people');
  await page.getByRole('button', { name: 'Add people' }).click();
  await addRecipients(page, 'Ann Lee <ann.lee@slip.example>', 'bo@slip.example');
  const adding = page.getByRole('region', { name: 'Add people' });
  await adding.getByLabel('Group').fill('Slipways');
  await adding.getByRole('button', { name: 'Add 2 people' }).click();
  await expect(adding.getByRole('status')).toContainText('2 people added');
  await page.getByRole('link', { name: /^Slipways/ }).click();
  await expect(page.getByRole('link', { name: 'Ann Lee' })).toBeVisible();
  await page.getByRole('checkbox', { name: /Ann Lee/ }).check();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Remove from “Slipways”' }).click();
  await expect(page.getByRole('link', { name: 'Ann Lee' })).toHaveCount(0);
});
