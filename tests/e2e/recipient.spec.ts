// The recipient's own pages: everything that was sent to them, their devices, their language.
import { expect, type Browser, type Page } from '@playwright/test';
import { en } from '@/words/reader/en';
import { countCodes, expectNothingSerious, linkFor, newestCode, open, signIn } from './people';
import { test } from './test';

const VANE = 'vane@harbour-aldery.example';
/** Codes for one address are limited, and the tests before use up those of the other. */
const DORA = 'dora.finch@pell.example';
const PHONE = { width: 320, height: 640 };

type Way = { readonly locale?: string; readonly viewport?: typeof PHONE; readonly kept?: boolean };

/** Proves an address as anybody does, whatever the language of the page. */
async function proveAt(
  browser: Browser,
  staff: Page,
  path: string,
  address: string,
  { locale = 'en-GB', viewport = { width: 1280, height: 800 }, kept = false }: Way = {},
): Promise<Page> {
  const context = await browser.newContext({ viewport, locale });
  const page = await context.newPage();
  const before = await countCodes(staff, address);
  await open(page, path);
  await page.locator('input[type=email]').fill(address);
  await page.locator('form button[type=submit]').click();
  const code = page.locator('input[autocomplete=one-time-code]');
  await code.waitFor();
  await code.fill(await newestCode(staff, address, before));
  if (kept) await page.locator('input[type=radio][value=kept]').check();
  await page.locator('form button[type=submit]').click();
  await code.waitFor({ state: 'detached' });
  return page;
}

async function expectNoSideways(page: Page): Promise<void> {
  const wide = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(wide).toBeLessThanOrEqual(0);
}

/** English sentences of the catalogue that stand on a page. */
async function englishOn(page: Page): Promise<string[]> {
  const text = await page.locator('body').innerText();
  const sentences = (node: object): string[] =>
    Object.values(node).flatMap((value: string | object) =>
      typeof value === 'string' ? [value] : sentences(value),
    );
  return sentences(en).filter(
    (sentence) => / .* /.test(sentence) && !/[{<]/.test(sentence) && text.includes(sentence),
  );
}

test('everything that was sent is in one place; it opens from there; another device is ended', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff);
  const phone = await proveAt(browser, staff, '/r/sent', VANE, { viewport: PHONE });
  const reader = await proveAt(browser, staff, '/r/sent', VANE, { kept: true });
  await expect(reader.getByRole('heading', { name: 'Sent to you' })).toBeVisible();
  await expectNothingSerious(reader);

  await test.step('it is found by words, opens, and leads back', async () => {
    await reader.getByLabel('Find by title').fill('berth weights');
    await expect(
      reader.getByRole('listitem').filter({ hasText: 'Berth study, levels' }),
    ).toBeHidden();
    await reader
      .getByRole('listitem')
      .filter({ hasText: 'Berth study, weights' })
      .getByRole('button', { name: 'Read' })
      .click();
    await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
    await reader.getByRole('button', { name: 'Back to the list' }).click();
    await expect(reader.getByText('last opened something')).toBeVisible();
  });

  await test.step('what is closed is asked for, and the request stands on the list', async () => {
    await reader
      .getByRole('listitem')
      .filter({ hasText: 'Noise prediction' })
      .getByRole('button', { name: 'Ask for it' })
      .click();
    await reader.getByRole('button', { name: 'Ask for more, or write' }).click();
    await reader.getByLabel('Reason or message').fill('For the harbour board');
    // Whoever goes back before it has arrived sees it as well.
    await reader.route('**/api/v1/reader/requests', async (route) => {
      await reader.waitForTimeout(1_500);
      await route.continue();
    });
    await reader.getByRole('button', { name: /^Send to / }).click();
    await reader.getByRole('button', { name: 'Back to the list' }).click();
    await expect(
      reader.getByRole('listitem').filter({ hasText: 'Noise prediction' }).getByText('You wrote'),
    ).toBeVisible();
  });

  await test.step('a device is named and another one ended: it goes blank', async () => {
    const here = reader.getByRole('listitem').filter({ hasText: 'this one' });
    await here.getByRole('button', { name: 'Rename' }).click();
    await reader.getByLabel('Name of this device').fill('Office, second desk');
    await reader.getByRole('button', { name: 'Save' }).click();
    await expect(reader.getByText('Office, second desk')).toBeVisible();
    await phone
      .getByRole('listitem')
      .filter({ hasText: 'Berth study, weights' })
      .getByRole('button', { name: 'Read' })
      .click();
    await expect(phone.locator('[data-page="1"] img').first()).toBeVisible();
    await reader.getByRole('button', { name: /^End / }).first().click();
    await expect(reader.getByText('opens nothing any more')).toBeVisible();
    await expect(phone.getByText('has not been proven in this browser')).toBeVisible();
    await expect(phone.locator('[data-page] img')).toHaveCount(0);
  });

  await test.step('the bare address remembers who is here; signing out leaves nothing', async () => {
    await open(reader, '/r');
    await expect(reader.getByRole('heading', { name: 'Sent to you' })).toBeVisible();
    await reader.getByRole('button', { name: 'Sign out on this device' }).click();
    await expect(
      reader.getByRole('heading', { name: 'Open a protected file', level: 1 }),
    ).toBeVisible();
    const stays = await reader.evaluate(async () => ({
      stored: Object.values(localStorage).join(' '),
      databases: (await indexedDB.databases()).length,
    }));
    expect(stays.stored).not.toContain('vane');
  });
});

const SPOKEN = [
  ['de-AT', 'de', 'Deutsch', 'Ihnen gesendet'],
  ['fr-CA', 'fr', 'Français', 'Ce qui vous a été envoyé'],
  ['es-MX', 'es', 'Español', 'Lo que se le ha enviado'],
  ['ja-JP', 'ja', '日本語', 'あなたに届いた文書'],
] as const;

/** Nothing of it is English, wider than the screen, or unfit for a screen reader. */
async function expectSpoken(page: Page, language: string): Promise<void> {
  await expect(page.locator('html')).toHaveAttribute('lang', language);
  expect(await englishOn(page)).toEqual([]);
  await expectNoSideways(page);
  await expectNothingSerious(page);
}

test('a browser is spoken to in the language it prefers, on a narrow screen, also of what went wrong', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff);
  const link = await linkFor(staff, VANE, 'Berth study: the files beside it');
  for (const [locale, language] of SPOKEN) {
    const context = await browser.newContext({ locale, viewport: PHONE });
    const page = await context.newPage();
    await open(page, link);
    await expectSpoken(page, language);
    await page.locator('input[type=email]').fill('vane@harbour');
    await page.locator('form button[type=submit]').click();
    const alert = page.locator('main [role=alert]');
    await expect(alert).toBeVisible();
    expect(await alert.innerText()).not.toMatch(/email address/);
    await context.close();
  }
});

test('every page of a recipient is in the language they choose, and choosing it loses nothing', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff);
  const link = await linkFor(staff, VANE, 'Berth study: the files beside it');
  const reader = await proveAt(browser, staff, '/r/sent', VANE, { viewport: PHONE });
  const stranger = await proveAt(browser, staff, link, 'someone@elsewhere.example', {
    viewport: PHONE,
  });
  for (const [, language, name, heading] of SPOKEN) {
    await reader.getByRole('button', { name }).click();
    await expect(reader.getByRole('heading', { name: heading })).toBeVisible();
    await expectSpoken(reader, language);

    await stranger
      .context()
      .addCookies([{ name: 'embargo-language', value: language, url: stranger.url() }]);
    await stranger.reload();
    await expect(stranger.locator('main [role=alert]')).toBeVisible();
    await expectSpoken(stranger, language);
  }
  await reader.getByRole('button', { name: 'Deutsch' }).click();
  await reader
    .getByRole('listitem')
    .filter({ hasText: 'TQ-380-BS-01' })
    .getByRole('button')
    .click();
  await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  await reader.locator('header button[aria-expanded]').click();
  for (const [, language, name] of SPOKEN) {
    await reader.getByRole('button', { name }).click();
    await expectSpoken(reader, language);
  }
  await reader.getByRole('button', { name: 'English' }).click();
  await expect(reader.getByText('What is recorded')).toBeVisible();
  await expect(reader.locator('[data-page="1"] img').first()).toBeAttached();
});

test('a notice is accepted before the first open, in the language it is read in', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff, '/settings/work');
  const part = staff.getByRole('region', { name: 'Notice' });
  await part.getByLabel('In English').fill('Keep what you read here to yourself.');
  await part.getByLabel('In German').fill('Behalten Sie für sich, was Sie hier lesen.');
  await part.getByRole('button', { name: 'Save notice' }).click();
  await expect(part.getByText('accepted by 0 people')).toBeVisible();
  try {
    const reader = await proveAt(browser, staff, '/r/sent', VANE, { locale: 'de-DE' });
    await reader
      .getByRole('listitem')
      .filter({ hasText: 'TQ-380-BS-01' })
      .getByRole('button')
      .click();
    await expect(reader.getByText('Behalten Sie für sich, was Sie hier lesen.')).toBeVisible();
    await expectNothingSerious(reader);
    await expect(reader.locator('[data-page]')).toHaveCount(0);
    await reader.getByRole('button', { name: 'Annehmen und öffnen' }).click();
    await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  } finally {
    await open(staff, '/settings/work');
    await expect(part.getByText('accepted by 1 person')).toBeVisible();
    await part.getByLabel('In English').fill('');
    await part.getByLabel('In German').fill('');
    await part.getByRole('button', { name: 'Save notice' }).click();
    await expect(
      part.getByText('Nobody is asked to accept anything.', { exact: false }),
    ).toBeVisible();
  }
  await open(staff, '/ledger?action=notice.accepted');
  await expect(staff.getByText('accepted the notice').first()).toBeVisible();
});

/** A device with a fingerprint sensor that always finds its owner (WebDriver, virtual authenticators). */
async function giveAuthenticator(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('WebAuthn.enable');
  await session.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
}

test('a passkey is made where a document asks for it, and opens it later without a code', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff, '/documents?q=TQ-412-AN-01');
  await staff.getByRole('link', { name: 'Anchoring and mooring' }).click();
  const over = staff.getByRole('region', { name: 'Ceilings that apply' });
  await over.getByRole('button', { name: 'Set a ceiling…' }).click();
  await over.getByLabel('A passkey is asked for besides the email address').check();
  await over.getByRole('button', { name: 'Show who is affected' }).click();
  await over.getByRole('button', { name: 'Set ceiling' }).click();
  await expect(over.getByText(/^This document: with a passkey besides/)).toBeVisible();
  const reader = await proveAt(browser, staff, '/r/sent', DORA);
  await giveAuthenticator(reader);
  const row = reader.getByRole('listitem').filter({ hasText: 'TQ-412-AN-01' });

  await test.step('it is refused, says why, and opens once a passkey is made', async () => {
    await row.getByRole('button').click();
    await expect(reader.getByText('asks for your passkey as well')).toBeVisible();
    await expectNothingSerious(reader);
    await reader.getByRole('button', { name: 'Continue with a passkey' }).click();
    await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  });

  await test.step('it comes in without a code afterwards', async () => {
    await open(reader, '/r/sent');
    await expect(reader.getByText('last used')).toBeVisible();
    await reader.getByRole('button', { name: 'Sign out on this device' }).click();
    await reader.getByRole('button', { name: 'Use a passkey instead of a code' }).click();
    await reader.getByRole('button', { name: 'Continue with a passkey' }).click();
    await expect(reader.getByRole('heading', { name: 'Sent to you' })).toBeVisible();
    await row.getByRole('button').click();
    await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  });

  await test.step('removed, it proves nothing any more', async () => {
    await open(reader, '/r/sent');
    await reader.getByRole('button', { name: /^Remove the passkey/ }).click();
    await expect(reader.getByText('You have none.')).toBeVisible();
    await reader.getByRole('button', { name: 'Sign out on this device' }).click();
    await reader.getByRole('button', { name: 'Use a passkey instead of a code' }).click();
    await reader.getByRole('button', { name: 'Continue with a passkey' }).click();
    await expect(reader.getByText('was not accepted')).toBeVisible();
  });
  await over.getByRole('button', { name: 'Undo' }).click();
  await expect(over.getByText(/^This document:/)).toHaveCount(0);
});

/** Moves the focus on with Tab until it is on what has this name, as somebody without a pointer does. */
async function tabTo(page: Page, name: RegExp, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await expect(async () => {
    await page.keyboard.press(key);
    const focused = await page.evaluate(() => {
      const element = document.activeElement;
      if (!(element instanceof HTMLElement)) return '';
      const isField = element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;
      const labels = isField ? [...(element.labels ?? [])] : [];
      const said = [element.ariaLabel, ...labels.map((each) => each.innerText), element.innerText];
      return said.filter(Boolean).join(' ');
    });
    expect(focused).toMatch(name);
  }).toPass({ intervals: [0], timeout: 20_000 });
}

test('the whole way is gone by keyboard: from the address to pages, a question and the way out', async ({
  page: staff,
  browser,
}) => {
  await signIn(staff);
  const context = await browser.newContext({ viewport: { width: 640, height: 400 } });
  const reader = await context.newPage();
  const before = await countCodes(staff, DORA);
  await open(reader, '/r/sent');
  // Where one begins to type is where the focus is.
  await reader.keyboard.type(DORA);
  await reader.keyboard.press('Enter');
  await expect(reader.getByRole('heading', { name: 'Enter the code' })).toBeVisible();
  await reader.keyboard.type(await newestCode(staff, DORA, before));
  await reader.keyboard.press('Enter');
  await expect(reader.getByRole('heading', { name: 'Sent to you' })).toBeVisible();
  await expectNoSideways(reader);

  await tabTo(reader, /^Read$/);
  await reader.keyboard.press('Enter');
  await expect(reader.locator('[data-page="1"] img').first()).toBeVisible();
  await expectNoSideways(reader);
  await tabTo(reader, /^What you may do/);
  await reader.keyboard.press('Enter');
  await tabTo(reader, /^Ask for more, or write/);
  await reader.keyboard.press('Enter');
  await tabTo(reader, /^Reason or message/);
  await reader.keyboard.type('Is the windlass as ordered?');
  await tabTo(reader, /^Send to /);
  await reader.keyboard.press('Enter');
  await expect(reader.getByText('You wrote: waiting for an answer')).toBeVisible();
  await tabTo(reader, /^Back to the list/, 'Shift+Tab');
  await reader.keyboard.press('Enter');
  await tabTo(reader, /^Sign out on this device/);
  await reader.keyboard.press('Enter');
  await expect(reader.getByRole('heading', { name: 'See what was sent to you.' })).toBeVisible();
});
