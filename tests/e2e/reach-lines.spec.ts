// The picture of access over time, worked with by pointer and by keys.
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { expectNothingSerious, open, signIn } from './people';

async function openTender(page: Page): Promise<void> {
  await signIn(page, '/dispatches');
  await page.getByRole('link', { name: 'Tender round 1, Hull 412' }).click();
  await expect(page.getByRole('grid', { name: 'Access over time' })).toBeVisible();
}

test('an end is dragged, shown before and after, moved, and taken back', async ({ page }) => {
  await openTender(page);
  const handle = page.getByRole('slider', { name: 'End of access for Mira Kolbe' });
  const before = await handle.getAttribute('aria-valuetext');
  const box = await handle.boundingBox();
  if (box === null) throw new Error('no handle');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText(`${before ?? ''} →`)).toBeVisible();
  // Nothing was changed so far, and leaving it leaves it.
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(handle).toHaveAttribute('aria-valuetext', before ?? '');

  await handle.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Move 3 ends' }).click();
  await expect(page.getByText('Changed 3 ends.')).toBeVisible();
  await expect(handle).not.toHaveAttribute('aria-valuetext', before ?? '');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(handle).toHaveAttribute('aria-valuetext', before ?? '');
});

test('several people are picked by keys and revoked together, who is hit named first, and taken back', async ({
  page,
}) => {
  await openTender(page);
  const rows = page.getByRole('row').filter({ has: page.getByRole('gridcell') });
  await rows.first().click({ position: { x: 20, y: 12 } });
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 selected')).toBeVisible();
  await expect(page.getByText('2 people', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Revoke 6…' }).click();
  await expect(page.getByRole('dialog')).toContainText('Jonas Feld, Mira Kolbe');
  await page.getByRole('button', { name: 'Revoke 6', exact: true }).click();
  await expect(page.getByText('Revoked 6 grants.')).toBeVisible();
  await expect(page.getByRole('row', { name: /^Mira Kolbe.*revoked$/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row', { name: /^Mira Kolbe.*revoked$/ })).toHaveCount(0);
});

test('one document at a time, or as rows; nothing serious for axe', async ({ page }) => {
  await openTender(page);
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Weight list' }).click();
  await page.getByRole('row', { name: /^Mira Kolbe/ }).click({ position: { x: 20, y: 12 } });
  await expect(page.getByText('May read and print, ending')).toBeVisible();
  await expectNothingSerious(page);
  await page.getByRole('button', { name: 'Table' }).click();
  await expect(page.getByRole('columnheader', { name: 'Until' })).toBeVisible();
});

test('anything is found from anywhere, and the keys are listed, without a pointer', async ({
  page,
}) => {
  await signIn(page);
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('weight');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('region', { name: 'Documents' }).getByRole('link', { name: 'Weight list' }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: '“weight”' }).click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('a day earlier or later');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await open(page, '/find?q=%25');
  await expect(page.getByText('Nothing found')).toBeVisible();
  await open(page, '/find?q=kelder');
  await expect(page.getByRole('link', { name: 'Petra Lind' })).toBeVisible();
});
