import { expect } from '@playwright/test';
import { test } from './test';
import { addDocuments, addRecipients, giveRights, takeSavedTerms } from './composing';
import { expectNothingSerious, open, signIn, typeInto } from './people';

test('a ceiling is lowered after its impact is read; why is one click; undone, all is as before', async ({
  page,
  context,
}) => {
  await signIn(page, '/terms');
  const ceilings = page.getByRole('region', { name: 'Ceilings' });
  await ceilings.getByRole('button', { name: 'the organisation' }).click();
  const side = page.getByRole('complementary', { name: 'The selected terms' });
  await side.getByLabel('Days').fill('7');
  await side.getByRole('button', { name: 'Show who is affected' }).click();
  await expect(side.getByText(/^Affected: \d+ people and \d+ documents\.$/)).toBeVisible();
  await expect(side.getByText(/(people|person) would lose access at once\./)).toBeVisible();
  await expectNothingSerious(page);

  // Reading it has changed nothing: the person can open still.
  const people = await context.newPage();
  await open(people, '/people?q=anton.gray');
  await people.getByRole('link', { name: 'Anton Gray' }).click();
  await expect(people.getByText('Anton Gray. Can open 3 documents now.')).toBeVisible();

  await side.getByRole('button', { name: 'Set ceiling' }).click();
  await expect(page.getByText('The ceiling is set and applies from now on.')).toBeVisible();
  await expect(ceilings.getByText('ends after 7 days')).toBeVisible();

  await people.reload();
  await people.locator('html[data-awake]').waitFor();
  await expect(people.getByText('Anton Gray. Can open nothing now.')).toBeVisible();
  await people.getByRole('button', { name: 'Why: Bow ramp mechanism' }).click();
  const why = people.getByRole('region', { name: 'Why' });
  await expect(
    why.getByText('Anton Gray cannot open “Bow ramp mechanism”: access has ended.'),
  ).toBeVisible();
  await expect(
    why.getByText(
      /set by Ida Roe .* To change this: raise the ceiling on days of the organisation/,
    ),
  ).toBeVisible();

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Undone.')).toBeVisible();
  await people.reload();
  await people.locator('html[data-awake]').waitFor();
  await expect(people.getByText('Anton Gray. Can open 3 documents now.')).toBeVisible();

  // And why not print: one click, and the same question at another time.
  await people.getByRole('button', { name: 'Why: Bow ramp mechanism' }).click();
  await expect(
    why.getByRole('row', { name: /may not print D-\d+ does not give it/ }),
  ).toBeVisible();
  await why.getByRole('button', { name: 'Try another case' }).click();
  await typeInto(why, 'At', '1 Jan 2030 12:00');
  await expect(
    why.getByText('Anton Gray cannot open “Bow ramp mechanism”: access has ended.'),
  ).toBeVisible();
  await expectNothingSerious(people);
});

test('what a ceiling takes is said while composing', async ({ page }) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Bow ramp mechanism');
  await giveRights(page, 'Copy text', 'Print', 'Keep a copy');
  await expect(
    page.getByText(
      '“Bow ramp mechanism”: nobody may keep, by the ceiling of the folder Hull 412, which Ida Roe set.',
    ),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
});

test('saved terms are used unchanged, and changed with what went out on them, read first and undone', async ({
  page,
}) => {
  await signIn(page, '/compose');
  await addDocuments(page, 'Bow ramp mechanism');
  await takeSavedTerms(page, 'To look at only, a week');
  await addRecipients(page, 'anton.gray@aldery-ferries.example');
  await page.getByLabel('Subject').fill('The ramp, to look at');
  await page.getByRole('button', { name: 'Encrypt and dispatch' }).click();
  await page.waitForURL('**/dispatches/dsp_*');

  await open(page, '/terms');
  await page.getByRole('button', { name: 'To look at only, a week' }).click();
  const side = page.getByRole('complementary', { name: 'The selected terms' });
  await expect(side.getByText('Version 1. 1 person was given access with them.')).toBeVisible();
  await side.getByLabel('Days from the dispatch on').fill('3');
  await side.getByRole('button', { name: 'Save terms…' }).click();
  await expect(side.getByText('1 person would have access for a shorter time.')).toBeVisible();
  await expect(side.getByRole('link', { name: 'Anton Gray' })).toBeVisible();
  await side.getByRole('button', { name: 'Save and change earlier dispatches' }).click();
  await expect(page.getByText('Earlier dispatches changed too, for 1 person.')).toBeVisible();
  await expect(page.getByRole('cell', { name: '3 days', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('cell', { name: '7 days', exact: true })).toBeVisible();
});

test('a document shows the ceilings over it, and is given one of its own', async ({ page }) => {
  await signIn(page, '/documents?q=Bow+ramp');
  await page.getByRole('link', { name: 'Bow ramp mechanism' }).click();
  const over = page.getByRole('region', { name: 'Ceilings that apply' });
  await expect(over.getByText(/^The organisation: ends after 365 days/)).toBeVisible();
  await expect(
    over.getByText(/^The folder Hull 412: at most Read · Comment · Copy text · Print/),
  ).toBeVisible();
  await over.getByRole('button', { name: 'Set a ceiling…' }).click();
  await over.getByLabel('Opens each').fill('3');
  await over.getByRole('button', { name: 'Show who is affected' }).click();
  await expect(
    over.getByText(
      /(people|person) would have other limits on how often, from where or by what proof\./,
    ),
  ).toBeVisible();
  await over.getByRole('button', { name: 'Set ceiling' }).click();
  await expect(over.getByText(/^This document: 3 opens each/)).toBeVisible();
  await expectNothingSerious(page);
  await over.getByRole('button', { name: 'Undo' }).click();
  await expect(over.getByText(/^This document:/)).toHaveCount(0);
});
