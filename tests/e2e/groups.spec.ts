import { expect } from '@playwright/test';
import { test } from './test';
import { addRecipients } from './composing';
import { expectNothingSerious, open, signIn } from './people';

test('a group is made from a person, addressed as it is at that moment, and done away with', async ({
  page,
}) => {
  await signIn(page, '/people?q=anton.gray');
  await page.getByRole('link', { name: 'Anton Gray' }).click();
  const groups = page.getByRole('region', { name: 'Groups' });
  await groups.getByLabel('Name of a new group').fill('Ferry people');
  await groups.getByLabel('Name of a new group').press('Enter');
  await expect(
    groups.getByText('“Ferry people” is created, with this person in it.'),
  ).toBeVisible();
  await expect(groups.getByRole('button', { name: 'Ferry people 1', pressed: true })).toBeVisible();
  await expectNothingSerious(page);

  await open(page, '/compose');
  await addRecipients(page, 'Ferry people');
  const grid = page.getByRole('grid', { name: 'Recipients and rights' });
  const group = grid.getByRole('row', { name: 'Ferry people', exact: true });
  await group.getByRole('rowheader').click();
  await expect(page.getByText('People who join later get access')).toBeVisible();
  // Once it is kept as a draft, what is changed next is not undone by it.
  await page.waitForURL('**/compose?draft=*');
  const fetchedAnew = page.waitForResponse((answer) => answer.url().includes('_rsc='));
  await page.getByRole('button', { name: 'Use current members only' }).click();
  await fetchedAnew;
  await expect(group).toHaveCount(0);
  await expect(grid.getByRole('row', { name: 'Anton Gray', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();

  await open(page, '/people');
  await page.getByRole('link', { name: 'Ferry people 1' }).click();
  await expect(page.getByText('1 in 1 organisation')).toBeVisible();
  await page.getByRole('button', { name: 'Remove group' }).click();
  await expect(page.getByText(/^\d+ in \d+ organisations/)).toBeVisible();
  await expect(page.getByRole('link', { name: /Ferry people/ })).toHaveCount(0);
});
