// What a recipient does while reading: look closer, find, remark; and what staff see of it.
import { expect } from '@playwright/test';
import { test } from './test';
import { expectNothingSerious, linkFor, open, prove, signIn } from './people';

const RANA = 'solheim@meridian.example';

test('pages are zoomed, turned and found in; what is remarked comes to the sender, and is answered', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const link = await linkFor(page, RANA, 'For plan approval');
  const reader = await prove(browser, page, link, RANA);
  await reader.getByRole('button', { name: 'Read' }).nth(1).click();
  const first = reader.locator('[data-page="1"]');
  await expect(first.locator('img').first()).toBeVisible();

  await test.step('zoom, parts, turning, contents', async () => {
    const width = async () => (await first.boundingBox())?.width ?? 0;
    const fitted = await width();
    await reader.keyboard.press('+');
    await expect.poll(width).toBeGreaterThan(fitted);
    await reader.getByRole('button', { name: /^Zoom/ }).click();
    await reader.getByRole('menuitem', { name: '600 %' }).click();
    await expect(first.locator('.parts img').first()).toBeVisible();
    await reader.keyboard.press('9');
    await reader.keyboard.press('r');
    await expect
      .poll(async () => {
        const box = await first.boundingBox();
        return (box?.width ?? 0) > (box?.height ?? 0);
      })
      .toBe(true);
    for (let i = 0; i < 3; i++) await reader.keyboard.press('r');
    await reader.keyboard.press('0');
    await reader.getByRole('button', { name: 'Contents' }).click();
    await expect(reader.locator('.thumbnails img').first()).toBeVisible();
    await reader.getByRole('navigation').getByRole('button', { name: 'Page 3' }).click();
    await expect(reader.getByLabel('Page', { exact: true })).toHaveValue('3');
    await expectNothingSerious(reader);
  });

  await test.step('words are found', async () => {
    await reader.keyboard.press('/');
    await reader.keyboard.type('Mooring winch');
    await reader.keyboard.press('Enter');
    await expect(reader.locator('.hit').first()).toBeAttached();
    await expect(reader.getByText(/^1 of \d+$/)).toBeVisible();
  });

  await test.step('a remark is put on the page, and comes to who sent it', async () => {
    const aside = reader.getByRole('complementary', { name: 'What you may do' });
    await reader.getByLabel('Page', { exact: true }).fill('1');
    await reader.keyboard.press('Enter');
    await aside.getByRole('button', { name: 'Comment on a page' }).click();
    await first.getByTestId('placing').click({ position: { x: 200, y: 150 } });
    await aside.getByLabel('Comment on page 1').fill('Which issue of the list is this?');
    await aside.getByRole('button', { name: 'Save comment' }).click();
    await expect(aside.getByText('Which issue of the list is this?')).toBeVisible();
    await expect(first.getByRole('button', { name: /^Comment \d/ })).toHaveCount(3);

    await open(page, '/documents?q=Weight+list');
    await page.getByRole('table', { name: 'Documents' }).getByRole('link').first().click();
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Comments' }).click();
    const thread = page.getByRole('article').filter({ hasText: 'Which issue of the list' });
    await thread.getByRole('button', { name: 'Answer' }).click();
    await thread.getByLabel('Answer').fill('The second.');
    await thread.getByRole('button', { name: 'Save answer' }).click();
    await expect(thread.getByText('The second.')).toBeVisible();
    await expectNothingSerious(page);
  });

  await test.step('a remark that is being written is not lost when access ends', async () => {
    const aside = reader.getByRole('complementary', { name: 'What you may do' });
    await aside.getByRole('button', { name: 'Comment on a page' }).click();
    await first.getByTestId('placing').click({ position: { x: 300, y: 250 } });
    await aside.getByLabel('Comment on page 1').fill('Half a thought');
    await open(page, '/documents?q=Weight+list');
    await page.getByRole('table', { name: 'Documents' }).getByRole('link').first().click();
    // However many dispatches gave it to her by now: all of it ends.
    const hers = page.getByRole('checkbox', { name: /Solheim/ });
    await hers.first().waitFor();
    for (const each of await hers.all()) await each.check();
    await page.getByRole('button', { name: /^Revoke \d+…$/ }).click();
    await page.getByRole('button', { name: /^Revoke \d+$/ }).click();
    await expect(reader.getByLabel('What you were writing about page 1')).toHaveValue(
      'Half a thought',
    );
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(aside.getByLabel('Comment on page 1')).toHaveValue('Half a thought');
  });

  await test.step('staff see it as the recipient does', async () => {
    await page.getByRole('button', { name: 'Rana Solheim' }).first().click();
    await page.getByRole('button', { name: 'Why?' }).click();
    await page.getByRole('link', { name: 'See it as they do' }).click();
    await expect(page.getByText(/^as Rana Solheim/)).toBeVisible();
    await expect(page.locator('.page img').first()).toBeVisible();
    await expectNothingSerious(page);
  });
});

test('on a phone the pages fill the screen, and what one may do is a press away', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const link = await linkFor(page, RANA, 'For plan approval');
  const reader = await prove(browser, page, link, RANA, { width: 390, height: 844 });
  await reader.getByRole('button', { name: 'Read' }).nth(1).click();
  await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  const aside = reader.getByRole('complementary', { name: 'What you may do' });
  await expect(aside).toBeHidden();
  const pages = await reader.getByRole('main', { name: 'Pages' }).boundingBox();
  expect(pages?.height ?? 0).toBeGreaterThan(500);
  await reader.getByRole('button', { name: 'What you may do' }).click();
  await expect(aside).toBeVisible();
  await expectNothingSerious(reader);
  await reader.getByRole('button', { name: 'Back to the pages' }).click();
  expect(
    await reader.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth),
  ).toBe(true);
});
