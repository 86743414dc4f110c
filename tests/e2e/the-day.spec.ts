// The day of the demo, worked through as an administrator would.
import { expect } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, chooseDelivery, takeSavedTerms } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

test('the surveyor who asks for time is given it, and reads on until then', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const asked = page.getByRole('region', { name: 'Requests to you' });
  const row = asked.getByRole('row').filter({ hasText: 'Rana Solheim' });
  await expect(row).toContainText('asks for more time until');
  await row.getByRole('button', { name: 'Answer' }).click();
  await asked.getByLabel('Message').fill('Take the fortnight.');
  await expectNothingSerious(page);
  await asked.getByRole('button', { name: 'Give this' }).click();
  await expect(asked.getByRole('status')).toContainText('Given to Rana Solheim');
  await expect(asked.getByRole('row').filter({ hasText: 'Rana Solheim' })).toHaveCount(0);

  const link = await linkFor(page, 'solheim@meridian.example', 'Your request');
  const reader = await prove(browser, page, link, 'solheim@meridian.example');
  await reader.getByRole('button', { name: 'Read' }).first().click();
  const own = reader.getByRole('region', { name: 'What you asked for' });
  await expect(own).toContainText('given');
  await expect(own).toContainText('Take the fortnight.');
  await own.getByRole('button', { name: 'Ask for more, or write' }).click();
  await own.getByLabel('To print').check();
  await own.getByLabel('Reason or message').fill('One copy for the file');
  await expectNothingSerious(reader);
  await own.getByRole('button', { name: 'Send to Ida Roe' }).click();
  await expect(own).toContainText('You asked to print: waiting for an answer');
});

test('two bidders who want the same are answered at once, one refusal with its reason', async ({
  page,
}) => {
  await signIn(page);
  const asked = page.getByRole('region', { name: 'Requests to you' });
  const row = asked.getByRole('row').filter({ hasText: 'Mira Kolbe, Jonas Feld' });
  await row.getByRole('button', { name: 'Answer 2' }).click();
  await expect(asked.getByRole('button', { name: 'Decline' })).toBeDisabled();
  await asked.getByLabel('Message').fill('Nobody copies before the round closes.');
  await asked.getByRole('button', { name: 'Decline' }).click();
  await expect(asked.getByRole('status')).toContainText('Declined for Mira Kolbe, Jonas Feld');
});

test('the yard that opened from the wrong country is found from Today, on the map and in the list', async ({
  page,
}) => {
  await signIn(page);
  const elsewhere = page.getByRole('region', { name: 'Opened from somewhere new' });
  await expect(elsewhere.getByRole('row')).toContainText(['Lowtide Engineering']);
  await elsewhere.getByRole('link', { name: 'Show in ledger' }).first().click();
  await expect(
    page.getByRole('link', { name: 'Remove the filter place: Costa Brume' }),
  ).toBeVisible();
  await expect(page.locator('table.list tbody tr').first()).toContainText('Tomas Iversen');
  await page.getByRole('link', { name: 'Remove the filter place: Costa Brume' }).click();
  await expect(
    page.getByRole('link', { name: 'Remove the filter place: Costa Brume' }),
  ).toHaveCount(0);
  await page
    .getByRole('group', { name: 'Places on the map' })
    .getByRole('link', { name: /Costa Brume/ })
    .focus();
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('link', { name: 'Remove the filter place: Costa Brume' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Save this view' }).click();
  await page.getByLabel('Name of the view').fill('Lowtide far away');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: 'Lowtide far away' })).toBeVisible();
  await open(page, '/ledger');
  await page.getByRole('link', { name: 'Lowtide far away' }).click();
  await expect(
    page.getByRole('link', { name: 'Remove the filter organisation: Lowtide Engineering' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Remove “Lowtide far away”' }).click();
  await expect(page.getByRole('link', { name: 'Lowtide far away' })).toHaveCount(0);
});

test('the person who left loses everything, after it was said what that is, and it can be undone', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('/');
  await page.keyboard.type('Tomas Iversen');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Tomas Iversen' }).click();
  const panel = page.getByRole('complementary', { name: 'The selected person' });
  await expect(panel).toContainText(/Can open \d documents? now/);
  await panel.getByRole('button', { name: 'Revoke everything…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Shut out at once: Tomas Iversen');
  await dialog.getByRole('button', { name: /Revoke \d/ }).click();
  await expect(panel).toContainText('Can open nothing now');
  await panel.getByRole('button', { name: 'Undo' }).click();
  await expect(panel).toContainText(/Can open \d documents? now/);
  await panel.getByRole('button', { name: 'Edit details' }).click();
  await panel.getByLabel('Time zone').fill('Europe/Berlin');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toContainText('Europe/Berlin, where it is');
});

test('the tender that closed: rights are narrowed for several, one is added, links go by hand', async ({
  page,
}) => {
  await signIn(page, '/dispatches');
  await page.getByRole('link', { name: 'Tender round 1, Hull 412' }).click();
  const rows = page.getByRole('row').filter({ has: page.getByRole('gridcell') });
  await rows.first().click({ position: { x: 20, y: 12 } });
  await rows.nth(1).click({ position: { x: 20, y: 12 }, modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Change rights' }).click();
  const change = page.getByRole('group', { name: 'Change rights' });
  await change.getByRole('button', { name: 'No longer allow' }).click();
  await change.getByLabel('Print', { exact: true }).check();
  await expect(change.getByRole('status')).toContainText('→ Read.');
  await change.getByRole('button', { name: 'Change 6 grants' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Changed 6 grants' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();

  await page.getByRole('button', { name: 'Add people' }).click();
  const add = page.getByRole('region', { name: 'Add people' });
  await addRecipients(page, 'greta.holt@lowtide.example');
  await expect(add.getByRole('row', { name: 'Greta Holt', exact: true })).toBeVisible();
  await add.getByRole('button', { name: 'Add to this dispatch' }).click();
  await expect(page.getByRole('grid', { name: 'Access over time' })).toContainText('Greta Holt');

  await open(page, '/compose');
  await addDocuments(page, 'Weight list');
  await takeSavedTerms(page, 'To look at only, a week');
  await addRecipients(page, 'by.hand@ferrow.example');
  await chooseDelivery(page, 'I hand it over myself');
  await page.getByLabel('Subject').fill('Carried by hand');
  await page.getByRole('button', { name: 'Encrypt for hand-over' }).click();
  await expect(
    page.getByRole('region', { name: 'Links to hand over' }).getByText(/\/r\/[0-9a-z]{24}/),
  ).toBeVisible();
});

test('documents are filed together: moved, marked, handed over', async ({ page }) => {
  await signIn(page, '/documents');
  await page.getByRole('button', { name: 'New folder' }).click();
  await page.getByLabel('Name of the folder').fill('To be archived');
  await page.getByRole('button', { name: 'Create folder' }).click();
  await expect(page.getByRole('link', { name: /To be archived/ })).toBeVisible();
  for (const title of ['Noise prediction', 'Model test report'])
    await page.getByLabel(`Select ${title}`).check();
  await page.getByRole('group', { name: 'Selected documents' }).getByLabel('Move to').click();
  await page.getByRole('option', { name: 'To be archived' }).click();
  // Out of Hull 412 and its ceiling: what that does is read first.
  const impact = page.getByRole('region', { name: 'What this would change' });
  await expect(
    impact.getByText(/could also keep a copy\.|would have other limits/).first(),
  ).toBeVisible();
  await impact.getByRole('button', { name: 'Move anyway' }).click();
  await page.getByRole('link', { name: /To be archived/ }).click();
  await expect(page.locator('table.list tbody tr')).toHaveCount(2);
  await page.getByRole('link', { name: 'Noise prediction' }).click();
  const filed = page.getByRole('region', { name: 'Filing' });
  await filed.getByLabel('Deputy').click();
  await page.getByRole('option', { name: 'Nils Aker' }).click();
  await filed.getByLabel('Attribute').fill('shelf');
  await filed.getByLabel('Value').fill('B 12');
  await filed.getByRole('button', { name: 'Add' }).click();
  await expect(filed).toContainText('B 12');
  await expectNothingSerious(page);
});
