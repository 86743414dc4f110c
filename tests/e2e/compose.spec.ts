import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { drawPaper } from '../../demo/drawings';
import { addDocuments, addRecipients, cellOf, giveRights, inFold } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

/** Presses keys and counts them; what is typed as words is not counted. */
function keyboardOf(page: Page) {
  let presses = 0;
  return {
    press: async (...keys: readonly string[]) => {
      for (const key of keys) {
        presses++;
        await page.keyboard.press(key);
      }
    },
    type: (text: string) => page.keyboard.insertText(text),
    count: () => presses,
  };
}

const paper = async (reference: string, title: string) => ({
  name: `${reference} ${title}.pdf`,
  mimeType: 'application/pdf',
  buffer: Buffer.from(await drawPaper({ reference, title, kind: 'lines', pages: 2 })),
});

test('one document goes to three known people with one different right, by keyboard in few presses', async ({
  page,
}) => {
  await signIn(page, '/compose');
  const keys = keyboardOf(page);
  await page.getByLabel('Subject').focus();
  await keys.type('Three people, one may print');
  // Past Discard, which is there once something was typed.
  await expect(page.getByText('saved as a draft')).toBeVisible();
  await keys.press('Tab', 'Tab');
  await keys.type('Weight list');
  await keys.press('Enter');
  await expect(page.getByRole('list', { name: 'Chosen documents' })).toContainText('Weight list');
  // Past Choose files, Folder and Encrypt on this machine.
  await keys.press('Tab', 'Tab', 'Tab', 'Tab');
  for (const name of ['Mira Kolbe', 'Jonas Feld', 'Rana Solheim']) {
    await keys.type(name);
    await keys.press('Enter');
    await expect(page.getByRole('row', { name, exact: true })).toBeVisible();
  }
  const grid = page.getByRole('grid', { name: 'Recipients and rights' });
  // From the empty field down into the grid.
  await keys.press('ArrowDown');
  await expect(grid).toBeFocused();
  await keys.press(
    'ArrowDown',
    'ArrowDown',
    'ArrowRight',
    'ArrowRight',
    'ArrowRight',
    'ArrowRight',
    'ArrowRight',
  );
  // What bidders' documents begin with is two prints.
  await keys.press('5');
  await expect(cellOf(page, 'Jonas Feld', 'Print')).toHaveAccessibleName('Print: 5');
  await expect(cellOf(page, 'Mira Kolbe', 'Print')).toHaveAccessibleName('Print: 2');
  await keys.press('Control+Enter');
  await page.waitForURL('**/dispatches/dsp_*');
  expect(keys.count()).toBeLessThanOrEqual(25);
  await expect(page.getByText('1 document · 3 people')).toBeVisible();
});

test('a file that is dropped is protected meanwhile, marked by whoever sends it, and read', async ({
  page,
  browser,
}) => {
  await signIn(page, '/compose');
  await page.getByLabel('Subject').fill('Fresh from the board');
  const files = page.locator('input[type=file]');
  await files.setInputFiles([
    await paper('E2E-77', 'Berth at low water'),
    { name: 'notes.pdf', mimeType: 'application/pdf', buffer: Buffer.from('Dear all,') },
    { name: 'hull.model', mimeType: '', buffer: Buffer.from([7, 0, 1, 2]) },
  ]);
  const cards = page.getByRole('list', { name: 'Chosen documents' });
  await expect(cards.getByText('This file is not a PDF.')).toBeVisible();
  const hull = cards.getByRole('listitem').filter({ hasText: 'hull' });
  await expect(hull).toContainText('cannot be shown as pages');
  await hull.getByRole('button', { name: 'Protect' }).click();
  await hull.getByRole('combobox', { name: /^Marking of/ }).selectOption({ label: 'Bidders' });
  await addRecipients(page, 'lena.berg@ferrow.example');
  // Whoever may only read has nothing of a file that is not shown.
  await expect(
    page.getByText(/“hull” cannot be shown as pages, and .* may not keep/),
  ).toBeVisible();
  await cards.getByRole('button', { name: 'Remove hull' }).click();
  await cards.getByRole('combobox', { name: /^Marking of/ }).selectOption({ label: 'Bidders' });
  await expect(cards.getByText('2 pages · Bidders')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Encrypt and dispatch' })).toBeDisabled();
  await cards.getByRole('button', { name: 'Remove notes' }).click();
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const staff = await page.context().newPage();
  const reader = await prove(
    browser,
    staff,
    await linkFor(staff, 'lena.berg@ferrow.example', 'Fresh from the board'),
    'lena.berg@ferrow.example',
  );
  await expect(reader.locator('.page img').first()).toBeVisible();
});

test('what is wrong is said, and one press mends it; what is doubtful is asked once', async ({
  page,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list', 'Tender schedule');
  await addRecipients(page, 'Mira Kolbe', 'jonas.feld@brackvater.example');
  await page.getByLabel('Subject').fill('Mended');
  const fix = page.getByRole('region', { name: 'Fix before sending' });
  const look = page.getByRole('region', { name: 'To look at' });
  const send = page.getByRole('button', { name: 'Encrypt and dispatch' });

  await cellOf(page, 'Mira Kolbe', 'Keep a copy').click();
  await expect(fix.getByText(/^Mira Kolbe: Keep a copy is possible only with/)).toBeVisible();
  await expect(send).toBeDisabled();
  await expectNothingSerious(page);
  await fix.getByRole('button', { name: 'Also allow Copy text and unlimited Print' }).click();
  await expect(fix).toHaveCount(0);
  await expect(cellOf(page, 'Mira Kolbe', 'Copy text')).toHaveAccessibleName('Copy text: yes');

  await look.getByRole('button', { name: 'Use jonas.feld@brackwater.example' }).click();
  await expect(page.getByRole('row', { name: 'Jonas Feld', exact: true })).toBeVisible();
  await expect(look).toHaveCount(0);

  await cellOf(page, 'Jonas Feld', 'Files').click();
  for (const title of ['Weight list', 'Tender schedule'])
    await page.getByRole('checkbox', { name: title }).uncheck();
  await page.keyboard.press('Escape');
  await expect(fix.getByText('Jonas Feld would be given no document.')).toBeVisible();
  await fix.getByRole('button', { name: 'Give every document' }).click();
  await expect(fix).toHaveCount(0);

  const ends = page.getByRole('row', { name: 'Jonas Feld', exact: true }).locator('.ends');
  await ends.click();
  await page.getByRole('button', { name: 'No end' }).click();
  await expect(look.getByText('No end for Jonas Feld.')).toBeVisible();
  await expect(send).toBeDisabled();
  await look.getByRole('button', { name: 'Send it as it is' }).click();
  await expect(look).toHaveCount(0);
  await send.click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatch = page.url().split('/').at(-1) ?? '';
  await open(page, `/ledger?dispatch=${dispatch}&kind=sent`);
  await page
    .getByRole('row', { name: /dispatched/ })
    .first()
    .getByRole('button')
    .first()
    .click();
  await expect(page.getByRole('complementary', { name: 'The selected entry' })).toContainText(
    'no end',
  );
});

test('steps are undone and done again, rows are filled down, found and put in order', async ({
  page,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, 'Mira Kolbe', 'Jonas Feld', 'Rana Solheim');
  const grid = page.getByRole('grid', { name: 'Recipients and rights' });
  await cellOf(page, 'Mira Kolbe', 'Copy text').click();
  await grid.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('3 selected')).toBeVisible();
  await page.keyboard.press('Control+d');
  for (const name of ['Jonas Feld', 'Rana Solheim'])
    await expect(cellOf(page, name, 'Copy text')).toHaveAccessibleName('Copy text: yes');
  await page.keyboard.press('Control+z');
  await expect(cellOf(page, 'Jonas Feld', 'Copy text')).toHaveAccessibleName('Copy text: no');
  await page.keyboard.press('Control+y');
  await expect(cellOf(page, 'Jonas Feld', 'Copy text')).toHaveAccessibleName('Copy text: yes');
  await page.getByRole('button', { name: 'Use common terms' }).click();
  await expect(cellOf(page, 'Mira Kolbe', 'Copy text')).toHaveAccessibleName('Copy text: no');
  await page.getByRole('columnheader', { name: 'Person' }).getByRole('button').click();
  await expect(grid.getByRole('row').nth(2)).toHaveAccessibleName('Jonas Feld');
  await page.keyboard.press('Control+z');
  await giveRights(page, 'Print');
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByLabel('Subject')).toHaveValue('');
});

test('it is seen as a recipient would, at another time and place', async ({ page }) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, 'new.reader@ferrow.example');
  const seen = page.getByRole('region', { name: 'As the recipient sees it' });
  await expect(seen.getByRole('heading', { name: 'As new.reader@ferrow.example' })).toBeVisible();
  await expect(seen.getByRole('img', { name: /^Page 1 of Weight list/ })).toBeVisible();
  await cellOf(page, 'Common terms', 'Other terms').click();
  await page.getByLabel('Only in the countries').fill('NO');
  await page.keyboard.press('Escape');
  // What stands above it comes in meanwhile: a press that met it while it moved is made again.
  await expect(async () => {
    await seen.getByRole('button', { name: 'Try another case' }).click({ timeout: 2_000 });
    await expect(seen.getByLabel('In the country')).toBeVisible({ timeout: 2_000 });
  }).toPass();
  await seen.getByLabel('In the country').fill('BR');
  await seen.getByLabel('In the country').blur();
  await expect(
    seen.getByText('They would be refused: it does not open from this country.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
});

test('two windows on one draft do not overwrite each other', async ({ page }) => {
  await signIn(page, '/compose');
  await page.getByLabel('Subject').fill('One draft');
  await expect(page.getByText('saved as a draft')).toBeVisible();
  const other = await page.context().newPage();
  await open(other, page.url());
  await other.getByLabel('Subject').fill('One draft, from the other window');
  await expect(other.getByText('saved as a draft')).toBeVisible();
  await page.getByLabel('Subject').fill('One draft, from the first');
  await expect(page.getByText('this draft was changed in another window')).toBeVisible();
  await page.getByRole('button', { name: 'Save this as another draft' }).click();
  await expect(page.getByText('saved as a draft')).toBeVisible();
  for (const each of [page, other]) {
    await each.getByRole('button', { name: 'Discard' }).click();
    await expect(each.getByLabel('Subject')).toHaveValue('');
  }
});

// Other tests send at once, however this one ended.
test.afterAll(async ({ browser }) => {
  const page = await (await browser.newContext()).newPage();
  await signIn(page);
  const { origin } = new URL(page.url());
  const answer = await page.request.post('/api/v1/settings/work', {
    data: { heldFor: 0 },
    headers: { origin },
  });
  expect(answer.status()).toBe(200);
  await page.context().close();
});

test('a dispatch is held back, stopped, sent later as it was, and sent the same again', async ({
  page,
}) => {
  await signIn(page, '/settings/work');
  const part = page.getByRole('region', { name: 'Dispatches' });
  await part.getByLabel('Held back before they leave').click();
  await page.getByRole('option', { name: '10 minutes' }).click();
  await expect(page.getByText('Dispatches are held back for 10 minutes')).toBeVisible();
  await open(page, '/compose');
  await addDocuments(page, 'Weight list');
  await addRecipients(page, 'Mira Kolbe');
  await page.getByLabel('Subject').fill('Held back');
  await inFold(page, /^When/, (fold) =>
    expect(fold.getByText('It is held back for 10 minutes')).toBeVisible(),
  );
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches');
  const held = page.getByRole('region', { name: 'Held back' });
  await expect(held.getByText(/leaves in (10:00|9:\d\d)/)).toBeVisible();
  await expectNothingSerious(page);
  await held.getByRole('button', { name: 'Stop' }).click();
  await page.waitForURL('**/compose?draft=*');
  await expect(page.getByLabel('Subject')).toHaveValue('Held back');
  await expect(page.getByRole('row', { name: 'Mira Kolbe', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches');
  await held.getByRole('button', { name: 'Send now' }).click();
  await expect(held).toHaveCount(0);
  await page.getByRole('link', { name: 'Held back' }).click();
  await expect(page.getByText('1 document · 1 person')).toBeVisible();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Send the same again' }).click();
  await expect(page.getByLabel('Subject')).toHaveValue('Held back');
  await expect(page.getByRole('row', { name: 'Mira Kolbe', exact: true })).toBeVisible();
});
