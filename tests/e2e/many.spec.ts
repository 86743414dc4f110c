import { expect } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, cellOf, giveRights, inFold } from './composing';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

test('defaults and marks of a level are set after their impact is read, begin the next dispatch, are undone', async ({
  page,
}) => {
  await signIn(page, '/terms');
  const part = page.getByRole('region', { name: 'Defaults and watermarks' });
  await part.getByRole('button', { name: 'Bidders' }).click();
  const side = page.getByRole('complementary', { name: 'The selected terms' });
  await side.getByLabel('Days').fill('5');
  await side.getByRole('button', { name: 'Design…' }).click();
  const designer = page.getByRole('dialog', { name: 'Also on every page' });
  await designer.getByLabel('Words').fill('Round 2, for bidders ');
  await designer.getByRole('button', { name: 'Add a piece ▾' }).click();
  await page.getByRole('menuitem', { name: 'reference' }).click();
  // A real page bears it: read, printed, and as on a dark page.
  await expect(designer.locator('.first-page img')).toHaveCount(3);
  await expectNothingSerious(page);
  await designer.getByRole('button', { name: 'Remove reference' }).click();
  await designer.getByRole('button', { name: 'Use it' }).click();
  await side.getByRole('button', { name: 'Show who is affected' }).click();
  await expect(
    side.getByText(/(people|person) will have another watermark from their next open\.$/),
  ).toBeVisible();
  await expectNothingSerious(page);
  await side.getByRole('button', { name: 'Save defaults' }).click();
  await expect(
    part.getByText('Read · Print 2; 5 days; “Round 2, for bidders” on every page'),
  ).toBeVisible();

  const compose = await page.context().newPage();
  await open(compose, '/compose');
  await addDocuments(compose, 'Outline specification');
  await expect(cellOf(compose, 'Common terms', 'Print')).toHaveAccessibleName('Print: 2');
  await compose.getByRole('button', { name: 'Terms: defaults' }).click();
  await expect(
    compose.getByText(
      'Defaults: Read · Print 2: set by the marking Bidders, Ida Roe; 5 days: set by ' +
        'the marking Bidders, Ida Roe.',
    ),
  ).toBeVisible();
  await compose.close();

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(
    part.getByText('Read · Print 2; 21 days; “Tender, for bidders” on every page'),
  ).toBeVisible();
});

test('everyone at a domain is addressed; who is not allowed is said; what wants a second person waits', async ({
  page,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Model basin, first runs');
  await addRecipients(page, '@harbour-aldery.example');
  await expect(
    page.getByRole('rowheader', { name: /Everyone at harbour-aldery\.example.*known here/ }),
  ).toBeVisible();
  await expect(
    page.getByText('Everyone at harbour-aldery.example may read 1 document'),
  ).toBeVisible();
  await inFold(page, /^Delivery/, async (fold) => {
    await expect(fold.getByRole('button', { name: 'Unprotected' })).toBeDisabled();
    await expect(
      fold.getByText(
        /^Unprotected: not allowed here: Ida Roe decided so: what leaves this office leaves protected\./,
      ),
    ).toBeVisible();
  });
  await page.getByLabel('Subject').fill('The model, for all of you');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  await expect(page.getByText('1 document · people unknown')).toBeVisible();
  await expect(
    page
      .getByRole('region', { name: 'Links to hand over' })
      .getByText(
        'For any email address at harbour-aldery.example, once it is proven. It does not work for anybody else.',
      ),
  ).toBeVisible();

  await open(page, '/compose');
  await addDocuments(page, 'Model basin, first runs');
  await inFold(page, /^Delivery/, (fold) =>
    fold.getByLabel('Also make an open link: anyone with the link can read').check(),
  );
  await page.getByLabel('Subject').fill('The model, for the press');
  await page.getByRole('button', { name: 'Ask for approval' }).click();
  await page.waitForURL('**/today');
  const waits = page.getByRole('region', { name: 'Needs a second person' });
  await expect(
    waits.getByText(/to send “The model, for the press” to anyone with the link/),
  ).toBeVisible();
  await expect(waits.getByText('waits for another person')).toBeVisible();
  await waits.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText('The model, for the press')).toHaveCount(0);
});

test('a group takes in who joins; a way of delivery is decided and undone; an open link is read', async ({
  page,
  browser,
}) => {
  await signIn(page, '/people?q=anton.gray');
  await page.getByRole('link', { name: 'Anton Gray' }).click();
  const groups = page.getByRole('region', { name: 'Groups' });
  await groups.getByRole('button', { name: /^Bidding yards/ }).click();
  await expect(
    groups.getByText('Added to “Bidding yards”, with what was sent to the group itself.'),
  ).toBeVisible();
  await expect(page.getByRole('link', { name: 'Tender schedule' })).toBeVisible();
  await groups.getByRole('button', { name: /^Bidding yards/ }).click();
  await expect(
    groups.getByText('Removed from “Bidding yards”. They lose what was sent to the group itself.'),
  ).toBeVisible();

  await open(page, '/terms');
  const ways = page.getByRole('region', { name: 'Ways of delivery' });
  await ways.getByRole('button', { name: 'An open link' }).click();
  const side = page.getByRole('complementary', { name: 'The selected terms' });
  await side.getByRole('button', { name: 'senders may' }).click();
  await side.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('An open link: senders may, from now on.')).toBeVisible();

  const compose = await page.context().newPage();
  await open(compose, '/compose');
  await addDocuments(compose, 'Model basin, first runs');
  await inFold(compose, /^Delivery/, async (fold) => {
    await fold.getByLabel('Also make an open link: anyone with the link can read').check();
    await fold.getByRole('button', { name: 'I hand it over myself' }).click();
  });
  await cellOf(compose, 'Common terms', 'Other terms').click();
  await compose.getByLabel('Cover the pages while another window is in front').check();
  await compose.keyboard.press('Escape');
  await expect(
    compose.getByText('It opens with the pages covered while another window is in front.'),
  ).toBeVisible();
  await compose.getByLabel('Subject').fill('The model, for everybody');
  await expect(compose.getByText('saved as a draft')).toBeVisible();
  // Left half made and taken up again, it is as it was, also how it is handed over.
  await compose.reload();
  await expect(compose.getByRole('button', { name: 'Delivery: A link, by hand' })).toBeVisible();
  await expect(compose.getByRole('row', { name: 'Anyone with the link' })).toBeVisible();
  // Sent while the last words are still being kept.
  await inFold(compose, /^Message/, (fold) =>
    fold.getByLabel('Note').fill('To whom it may concern'),
  );
  await compose.waitForTimeout(700);
  await compose.getByRole('button', { name: 'Encrypt for hand-over' }).click();
  await compose.waitForURL('**/dispatches/dsp_*');
  const drafts = await page.context().newPage();
  await open(drafts, '/compose');
  await expect(drafts.getByRole('heading', { name: 'Compose' })).toBeVisible();
  await expect(drafts.getByRole('link', { name: /The model, for everybody/ })).toHaveCount(0);
  await drafts.close();
  const link = await compose
    .getByRole('region', { name: 'Links to hand over' })
    .locator('code')
    .innerText();

  const stranger = await (await browser.newContext()).newPage();
  await open(stranger, new URL(link).pathname);
  await expect(stranger.getByText('You are not asked who you are.')).toBeVisible();
  await stranger.getByRole('button', { name: 'Read it' }).click();
  await expect(stranger.getByRole('img', { name: /Page 1/ })).toBeVisible();
  await stranger.evaluate(() => window.dispatchEvent(new Event('blur')));
  await expect(
    stranger.getByText(/^Covered while another window is in front. Ida Roe asked for this\./),
  ).toBeVisible();
  await expect(stranger.getByRole('img', { name: /Page 1/ })).toBeHidden();
  await stranger.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(stranger.getByRole('img', { name: /Page 1/ })).toBeVisible();
  await compose.reload();
  await expect(compose.getByText('Somebody with the link').first()).toBeVisible();

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(ways.getByText('needs a second person')).toBeVisible();
});

test('a reader passes on what they were given, as far as was said, and the sender sees by whom', async ({
  page,
  browser,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'The slip in autumn');
  await addRecipients(page, 'vidar.klepp@aldery-ferries.example');
  await giveRights(page, 'Pass on');
  await expect(
    page.getByText('Pass on has no effect for Vidar Klepp: it is not said to how many people.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Let each pass it on to 1 person' }).click();
  await page.getByLabel('Subject').fill('The slip, for you and a mate');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');
  const dispatch = page.url();

  const vidar = await prove(
    browser,
    page,
    await linkFor(page, 'vidar.klepp@aldery-ferries.example', 'The slip, for you and a mate'),
    'vidar.klepp@aldery-ferries.example',
  );
  const passing = vidar.getByRole('region', { name: 'Passing on' });
  await expect(passing.getByText(/^You may pass this on to 1 person\./)).toBeVisible();
  await passing.getByRole('button', { name: 'Pass it on…' }).click();
  await passing.getByLabel('Their email address').fill('first.mate@aldery-ferries.example');
  await passing.getByRole('button', { name: 'Pass it on' }).click();
  await expect(passing.getByText('first.mate@aldery-ferries.example: Read')).toBeVisible();
  await expect(passing.getByText(/^You may pass this on to 0 more people\./)).toBeVisible();
  await expectNothingSerious(vidar);

  await open(page, new URL(dispatch).pathname);
  await page.getByRole('button', { name: 'Table' }).click();
  await expect(page.getByText('Aldery Ferries, passed on by Vidar Klepp')).toBeVisible();
});
