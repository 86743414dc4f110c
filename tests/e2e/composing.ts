// What a sender does in Compose, in the browser.
import { expect, type Locator, type Page } from '@playwright/test';

/** Adds documents of one's own by their titles. */
export async function addDocuments(page: Page, ...titles: readonly string[]): Promise<void> {
  for (const title of titles) {
    await page.getByRole('combobox', { name: 'Add a document' }).fill(title);
    await page.getByRole('combobox', { name: 'Add a document' }).press('Enter');
    await expect(
      page.getByRole('list', { name: 'Chosen documents' }).getByText(title, { exact: true }),
    ).toBeVisible();
  }
}

/** Adds recipients as they are typed: names, email addresses, groups, `@domains`. */
export async function addRecipients(page: Page, ...typed: readonly string[]): Promise<void> {
  const box = page.getByRole('combobox', { name: 'Recipients' });
  for (const text of typed) {
    await box.fill(text);
    await box.press('Enter');
    await expect(box).toHaveValue('');
  }
}

/** The cell of a row in a column, as it is read out; the row by its name, or `Common terms`. */
export function cellOf(page: Page, row: string, column: string): Locator {
  return page
    .getByRole('grid', { name: 'Recipients and rights' })
    .getByRole('row', { name: row, exact: true })
    .getByRole('gridcell', { name: new RegExp(`^${column}: `) });
}

/** Gives rights to everybody. */
export async function giveRights(page: Page, ...rights: readonly string[]): Promise<void> {
  for (const right of rights) {
    const cell = cellOf(page, 'Common terms', right);
    await expect(cell).toBeVisible();
    if ((await cell.getAttribute('aria-label')) === `${right}: no`) await cell.click();
    await expect(cell).not.toHaveAccessibleName(`${right}: no`);
  }
}

/** Opens a part that folds out, does something there and closes it again. */
export async function inFold(
  page: Page,
  name: string | RegExp,
  act: (fold: Locator) => Promise<void>,
): Promise<void> {
  await page.getByRole('button', { name }).click();
  await act(page.getByRole('dialog'));
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** What is handed over and how: `A link`, `A protected file`, `I hand it over myself`. */
export async function chooseDelivery(page: Page, ...choices: readonly string[]): Promise<void> {
  await inFold(page, /^Delivery/, async (fold) => {
    for (const choice of choices) await fold.getByRole('button', { name: choice }).click();
  });
}

/** Uses saved terms for everybody. */
export async function takeSavedTerms(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^Terms/ }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${name}`) }).click();
}

/** Files that are protected on Documents need their marking chosen, where nothing else says it. */
export async function chooseNoMarking(page: Page): Promise<void> {
  await page.getByRole('combobox', { name: 'Marking' }).click();
  await page.getByRole('option', { name: 'none' }).click();
}
